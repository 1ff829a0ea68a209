package dev.ironsieve.formats.report;

import dev.ironsieve.core.analysis.Finding;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes findings as the XML of JUnit, which many build servers read. */
public final class JUnitReport {
  private JUnitReport() {}

  /**
   * @param failing from which severity on a finding is a failure
   */
  public static void write(List<Report> reports, Finding.Severity failing, Writer to) {
    try {
      XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(to);
      xml.writeStartDocument("UTF-8", "1.0");
      xml.writeStartElement("testsuites");
      for (Report report : reports) {
        write(report, failing, xml);
      }
      xml.writeEndElement();
      xml.writeEndDocument();
      xml.close();
    } catch (XMLStreamException e) {
      throw new IllegalStateException("writing XML", e);
    }
  }

  private static void write(Report report, Finding.Severity failing, XMLStreamWriter xml)
      throws XMLStreamException {
    Map<Integer, List<Report.Entry>> byRule = new TreeMap<>();
    for (Report.Entry entry : report.entries()) {
      byRule.computeIfAbsent(entry.rule(), rule -> new ArrayList<>()).add(entry);
    }
    int clean = report.rules() - byRule.size();
    xml.writeStartElement("testsuite");
    xml.writeAttribute("name", report.file());
    xml.writeAttribute("tests", (byRule.size() + 1) + "");
    xml.writeAttribute("failures", failures(byRule, failing) + "");
    for (List<Report.Entry> entries : byRule.values()) {
      xml.writeStartElement("testcase");
      xml.writeAttribute("classname", report.file());
      xml.writeAttribute(
          "name", "rule " + entries.getFirst().rule() + " " + entries.getFirst().name());
      StringBuilder told = new StringBuilder();
      Report.Entry gravest = gravest(entries);
      for (Report.Entry entry : entries) {
        told.append(entry.severity().word()).append(": ").append(entry.message()).append('\n');
      }
      boolean fails = gravest.severity().compareTo(failing) >= 0;
      xml.writeStartElement(fails ? "failure" : "system-out");
      if (fails) {
        xml.writeAttribute("type", gravest.kind().word());
        xml.writeAttribute("message", gravest.message());
      }
      xml.writeCharacters(told.toString());
      xml.writeEndElement();
      xml.writeEndElement();
    }
    xml.writeStartElement("testcase");
    xml.writeAttribute("classname", report.file());
    xml.writeAttribute("name", clean + " rules about which nothing was found");
    xml.writeEndElement();
    xml.writeEndElement();
  }

  private static long failures(Map<Integer, List<Report.Entry>> byRule, Finding.Severity failing) {
    return byRule.values().stream()
        .filter(entries -> gravest(entries).severity().compareTo(failing) >= 0)
        .count();
  }

  private static Report.Entry gravest(List<Report.Entry> entries) {
    return entries.stream()
        .reduce((a, b) -> b.severity().compareTo(a.severity()) > 0 ? b : a)
        .orElseThrow();
  }
}
