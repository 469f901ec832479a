package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import javafx.print.PageLayout;
import javafx.print.PrinterJob;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.stage.Window;
import org.mendedleaf.core.words.Words;

/** Prints what is shown, as its words, on the system's printer where there is one. */
public final class Printing {

    private static final double LETTERS = 9;

    /** Between the lines. Points. */
    private static final double BETWEEN = 1;

    private Printing() {}

    /** Lines on pages, so many on each and none longer than so many letters; a long line goes on below, a tab is two spaces. */
    static List<List<String>> pages(String title, String text, int lines, int letters) {
        List<List<String>> pages = new ArrayList<>();
        List<String> page = new ArrayList<>();
        for (String whole : (title + "\n\n" + text).split("\n", -1)) {
            String rest = whole.replace("\t", "  ").stripTrailing();
            do {
                int end = rest.length() <= letters ? rest.length() : cut(rest, letters);
                page.add(rest.substring(0, end).stripTrailing());
                rest = rest.substring(end).stripLeading();
                if (page.size() == lines) {
                    pages.add(page);
                    page = new ArrayList<>();
                }
            } while (!rest.isEmpty());
        }
        boolean any = page.stream().anyMatch(l -> !l.isEmpty());
        if (any || pages.isEmpty()) {
            pages.add(page);
        }
        return pages;
    }

    /** Behind the last space that fits, or within a word that is longer than a line. */
    private static int cut(String line, int letters) {
        int space = line.lastIndexOf(' ', letters);
        return space > 0 ? space + 1 : letters;
    }

    /** Asks which printer, and prints; what became of it in words, empty when somebody thought better of it. */
    public static String print(Window owner, String title, DocumentView look) {
        PrinterJob job;
        try {
            job = PrinterJob.createPrinterJob();
        } catch (RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Printing.class).info("no printer", e);
            job = null;
        }
        if (job == null) {
            return Words.of("print.none");
        }
        if (!job.showPrintDialog(owner)) {
            job.cancelJob();
            return "";
        }
        return print(job, title, look);
    }

    /** Prints by a job whose printer is chosen; what became of it in words. */
    static String print(PrinterJob job, String title, DocumentView look) {
        PageLayout layout = job.getJobSettings().getPageLayout();
        int lines = lines(layout.getPrintableHeight());
        int letters = letters(layout.getPrintableWidth());
        List<List<String>> pages = pages(title, look.whole(), lines, letters);
        for (List<String> page : pages) {
            if (!job.printPage(layout, node(page))) {
                job.cancelJob();
                return Words.of("print.failed", title);
            }
        }
        return job.endJob() ? Words.of("print.done", title, pages.size()) : Words.of("print.failed", title);
    }

    /** How many lines a page of this height holds whole. */
    static int lines(double height) {
        double line = text(" ").getLayoutBounds().getHeight() + BETWEEN;
        return (int) Math.max(1, Math.floor((height + BETWEEN) / line));
    }

    /** How many letters a line of this width holds whole. */
    static int letters(double width) {
        return (int) Math.max(1, Math.floor(width / text("W").getLayoutBounds().getWidth()));
    }

    private static Text text(String line) {
        Text text = new Text(line.isEmpty() ? " " : line);
        text.setFont(Font.font("IBM Plex Mono", LETTERS));
        return text;
    }

    static Region node(List<String> page) {
        VBox box = new VBox(BETWEEN);
        // Paper has no pixels: lines rounded up would be more than the page holds.
        box.setSnapToPixel(false);
        page.forEach(line -> box.getChildren().add(text(line)));
        return box;
    }
}
