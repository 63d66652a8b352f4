package awlsmith.trainer.run;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.ToDoubleFunction;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.style.markers.SeriesMarkers;

/** A journal as a picture: loss and held-out gain over the iterations. */
public record Curve(List<Journal.Line> lines) {

    /** Writes a PNG; nothing while the journal is empty. */
    public void write(Path file) throws IOException {
        if (lines.isEmpty()) {
            return;
        }
        List<XYChart> charts =
                List.of(chart("loss", Journal.Line::loss), chart("dB over Lanczos, held out", Journal.Line::gain));
        BitmapEncoder.saveBitmap(charts, 2, 1, file.toString(), BitmapEncoder.BitmapFormat.PNG);
    }

    private XYChart chart(String name, ToDoubleFunction<Journal.Line> value) {
        XYChart chart = new XYChartBuilder()
                .width(900)
                .height(360)
                .xAxisTitle("iterations")
                .yAxisTitle(name)
                .build();
        chart.getStyler().setLegendVisible(false).setChartBackgroundColor(java.awt.Color.WHITE);
        chart.addSeries(
                        name,
                        lines.stream().mapToDouble(Journal.Line::iteration).toArray(),
                        lines.stream().mapToDouble(value).toArray())
                .setMarker(lines.size() < 2 ? SeriesMarkers.CIRCLE : SeriesMarkers.NONE);
        return chart;
    }
}
