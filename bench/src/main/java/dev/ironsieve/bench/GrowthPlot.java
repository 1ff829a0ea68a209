package dev.ironsieve.bench;

import java.awt.BasicStroke;
import java.awt.Color;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.BitmapEncoder.BitmapFormat;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.XYSeries;
import org.knowm.xchart.style.Styler.LegendPosition;
import org.knowm.xchart.style.markers.SeriesMarkers;

/** Draws seconds over rules, both on logarithmic axes. */
final class GrowthPlot {
  private static final Color[] COLORS = {
    new Color(0x1f4e79), new Color(0xb45309), new Color(0x5b5b5b)
  };
  private static final int WIDTH = 760;
  private static final int HEIGHT = 480;
  private static final double LEAST = 0.01; // seconds; below it a logarithm says nothing

  private GrowthPlot() {}

  static void draw(List<Growth.Point> points, Path file) throws IOException {
    XYChart chart =
        new XYChartBuilder()
            .width(WIDTH)
            .height(HEIGHT)
            .title("All findings, fresh JVM, and peers that only find the rules that decide")
            .xAxisTitle("rules")
            .yAxisTitle("seconds")
            .build();
    chart.getStyler().setXAxisLogarithmic(true).setYAxisLogarithmic(true);
    chart.getStyler().setLegendPosition(LegendPosition.OutsideE);
    chart.getStyler().setChartBackgroundColor(Color.WHITE);
    for (Shape shape : List.of(Shape.EASY, Shape.HARD)) {
      for (Growth.Way way : Growth.Way.values()) {
        List<Growth.Point> line =
            points.stream()
                .filter(p -> p.way() == way && p.shape() == shape && p.isWhole())
                .toList();
        if (line.isEmpty()) {
          continue;
        }
        XYSeries series =
            chart.addSeries(
                way.name().toLowerCase(Locale.ROOT) + ", " + shape.name().toLowerCase(Locale.ROOT),
                line.stream().mapToDouble(Growth.Point::all).toArray(),
                line.stream().mapToDouble(p -> Math.max(LEAST, p.median().seconds())).toArray());
        series.setLineColor(COLORS[way.ordinal()]);
        series.setMarkerColor(COLORS[way.ordinal()]);
        series.setMarker(shape == Shape.EASY ? SeriesMarkers.CIRCLE : SeriesMarkers.SQUARE);
        series.setLineStyle(
            shape == Shape.EASY
                ? new BasicStroke(2)
                : new BasicStroke(
                    2, BasicStroke.CAP_BUTT, BasicStroke.JOIN_ROUND, 1, new float[] {6, 4}, 0));
      }
    }
    BitmapEncoder.saveBitmap(chart, file.toString(), BitmapFormat.PNG);
  }
}
