package dev.ironsieve.server.question;

/**
 * The progress of a question.
 *
 * @param running false while it waits for a thread
 * @param seconds since it was asked
 * @param deadline seconds after which it is cancelled
 * @param waiting all questions that wait for a thread, of all accounts
 */
public record QuestionProgress(boolean running, long seconds, long deadline, long waiting) {}
