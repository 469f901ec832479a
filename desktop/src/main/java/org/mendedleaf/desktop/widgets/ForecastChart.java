package org.mendedleaf.desktop.widgets;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Polyline;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Two curves of space over a year: as it is, and under the proposed rules with the band in which most outcomes lie. */
public final class ForecastChart extends Region {

    private static final double HEIGHT = 170;
    private static final double LEFT = 62;
    private static final double BOTTOM = 22;
    private static final double TOP = 8;
    private static final int STEPS = 4;
    private static final int YEAR = 365;

    private final Forecast now;
    private final Forecast then;

    /** Curves of these two; with the same one twice there is one curve. */
    public ForecastChart(Forecast now, Forecast then) {
        this.now = now;
        this.then = then;
        setId("forecast-chart");
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        setAccessibleText(Words.of(
                "forecast.words",
                Formats.oneDecimal(then.versionsPerDay()),
                Formats.size(then.curve().get(0).bytes()),
                Formats.size(then.monthBytes()),
                Formats.size(then.yearBytes())));
        // Drawn when its width changes and not when it is laid out: new children ask for the next layout.
        widthProperty().addListener((o, a, b) -> draw());
    }

    private void draw() {
        getChildren().clear();
        if (getWidth() <= LEFT) {
            return;
        }
        double top = 1;
        for (Forecast f : List.of(now, then)) {
            for (Forecast.Point p : f.curve()) {
                top = Math.max(top, (double) p.highBytes());
            }
        }
        double scale = nice(top / STEPS) * STEPS;
        for (int i = 0; i <= STEPS; i++) {
            double y = y(scale * i / STEPS, scale);
            Line line = new Line(LEFT, y, getWidth(), y);
            line.getStyleClass().add("chart-line");
            line.setManaged(false);
            Label words = Ui.label(Formats.size((long) (scale * i / STEPS)), "chart-words");
            words.setManaged(false);
            words.resizeRelocate(0, y - 8, LEFT - 8, 16);
            getChildren().addAll(line, words);
        }
        for (int month = 0; month <= 12; month += 3) {
            Label words = Ui.label(month == 0 ? Words.of("chart.now") : Words.of("chart.months", month), "chart-words");
            words.setManaged(false);
            double x = x(month * YEAR / 12.0);
            words.resizeRelocate(Math.max(LEFT, Math.min(x - 30, getWidth() - 70)), HEIGHT - 18, 70, 16);
            getChildren().add(words);
        }
        Polygon band = new Polygon();
        then.curve().forEach(p -> band.getPoints().addAll(x(p.day()), y((double) p.highBytes(), scale)));
        for (int i = then.curve().size() - 1; i >= 0; i--) {
            Forecast.Point p = then.curve().get(i);
            band.getPoints().addAll(x(p.day()), y((double) p.lowBytes(), scale));
        }
        band.getStyleClass().add("chart-band");
        band.setManaged(false);
        getChildren().addAll(band, curve(now, scale, "chart-now"), curve(then, scale, "chart-then"));
    }

    /** A number of bytes that can be said in few digits. */
    private static double nice(double step) {
        double power = Math.pow(10, Math.floor(Math.log10(Math.max(1, step))));
        for (double f : new double[] {1, 1.5, 2, 2.5, 3, 4, 5}) {
            if (f * power >= step) {
                return f * power;
            }
        }
        return 10 * power;
    }

    private double x(double day) {
        return LEFT + (getWidth() - LEFT) * Math.min(day, YEAR) / YEAR;
    }

    private static double y(double bytes, double scale) {
        return TOP + (HEIGHT - BOTTOM - TOP) * (1 - bytes / scale);
    }

    private Polyline curve(Forecast f, double scale, String style) {
        Polyline line = new Polyline();
        f.curve().forEach(p -> line.getPoints().addAll(x(p.day()), y((double) p.bytes(), scale)));
        line.getStyleClass().addAll("chart-curve", style);
        line.setManaged(false);
        return line;
    }
}
