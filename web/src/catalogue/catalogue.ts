import type { Application, Catalogue, Rule } from '../api/types';

export const applicationsOf = (catalogue: Catalogue) =>
  (catalogue.applications ?? []) as Application[];

/** All that a person could look for in an application, in small letters. */
function textOf(application: Application): string {
  return [
    application.name,
    application.summary,
    application.category,
    ...(application.tags ?? []).map((tag) => `tag ${tag}`),
    ...(application.ports ?? []),
    ...(application.hosts ?? []),
    ...(application.features ?? []).map((feature) => `feature ${feature.name}`),
    `risk ${application.risk}`,
    `usefulness ${application.usefulness}`,
  ]
    .join('\n')
    .toLowerCase();
}

/**
 * The applications in which every word of the query is found, those whose name begins with the
 * query first.
 *
 * @param category only those of it; all if empty
 * @param leastRisk only those of at least this risk
 */
export function search(
  applications: Application[],
  query: string,
  category = '',
  leastRisk = 1,
): Application[] {
  const text = query.trim().toLowerCase();
  const words = text.split(/\s+/).filter(Boolean);
  const starts = (application: Application) => application.name.toLowerCase().startsWith(text);
  return applications
    .filter((application) => {
      if (category && application.category !== category) return false;
      if (application.risk < leastRisk) return false;
      const all = textOf(application);
      return words.every((word) => all.includes(word));
    })
    .sort((a, b) => Number(starts(b)) - Number(starts(a)) || a.name.localeCompare(b.name));
}

/** The names by which rules can mean an application, or a part of it, in small letters. */
export function namesOf(application: Application): Set<string> {
  const names = [
    application.name,
    ...(application.features ?? []).map((feature) => `${application.name}: ${feature.name}`),
    `${application.name}: other use`,
    `category ${application.category}`,
    ...(application.tags ?? []).map((tag) => `tag ${tag}`),
    `risk ${application.risk}`,
    ...[2, 3, 4]
      .filter((least) => least <= application.risk)
      .map((least) => `risk ${least} or more`),
  ];
  return new Set(names.map((name) => name.toLowerCase()));
}

/** The items of a rule that mention an application. */
export function saidOf(application: Application, rule: Rule): string[] {
  const names = namesOf(application);
  const means = (text: string) => names.has(text.toLowerCase());
  const asked = rule.terms?.application;
  return [
    ...(asked?.items ?? []).filter(means),
    ...(asked?.except ?? []).filter(means).map((text) => `not ${text}`),
  ];
}

/** The people of a rule; empty without a criterion on people. */
export function whomOf(rule: Rule): string[] {
  const asked = rule.terms?.person;
  const said = [...(asked?.items ?? []), ...(asked?.except ?? []).map((text) => `not ${text}`)];
  return said.length ? [`for ${said.join(', ')}`] : [];
}

/** The applications that an application needs and carries, and those that need or carry it. */
export interface Family {
  needs: string[];
  carries: string[];
  neededBy: string[];
  carriedBy: string[];
}

export function familyOf(application: Application, all: Application[]): Family {
  const names = (list: string[] | undefined) => (list ?? []).map((name) => name.toLowerCase());
  const own = application.name.toLowerCase();
  return {
    needs: application.needs ?? [],
    carries: application.carries ?? [],
    neededBy: all.filter((a) => names(a.needs).includes(own)).map((a) => a.name),
    carriedBy: all.filter((a) => names(a.carries).includes(own)).map((a) => a.name),
  };
}
