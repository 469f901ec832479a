package org.mendedleaf.desktop.look;

import java.util.ArrayList;
import java.util.List;
import javafx.print.PageLayout;
import javafx.print.PrinterJob;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.stage.Window;
import org.mendedleaf.core.words.Words;

/** Prints what is shown, as its words, on the system's printer where there is one. */
public final class Printing {

    private static final double LETTERS = 9;

    /** From the foot of one line to that of the next, as a part of the height of letters. */
    private static final double LEADING = 1.35;

    /** How wide a letter is at most, as a part of its height. */
    private static final double WIDEST = 0.62;

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
    public static String print(Window owner, String title, Look look) {
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
        PageLayout layout = job.getJobSettings().getPageLayout();
        int lines = (int) Math.max(10, layout.getPrintableHeight() / (LETTERS * LEADING));
        int letters = (int) Math.max(20, layout.getPrintableWidth() / (LETTERS * WIDEST));
        List<List<String>> pages = pages(title, look.whole(), lines, letters);
        for (List<String> page : pages) {
            if (!job.printPage(layout, node(page))) {
                job.cancelJob();
                return Words.of("print.failed", title);
            }
        }
        return job.endJob() ? Words.of("print.done", title, pages.size()) : Words.of("print.failed", title);
    }

    private static Node node(List<String> page) {
        VBox box = new VBox(LETTERS * (LEADING - 1));
        for (String line : page) {
            Text text = new Text(line.isEmpty() ? " " : line);
            text.setFont(Font.font("IBM Plex Mono", LETTERS));
            box.getChildren().add(text);
        }
        return box;
    }
}
