package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Path;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Words;

/** Writes reports where somebody wants them, off the thread of the screen. */
public final class Reports {

    private final AppContext context;

    /** Reports of this program. */
    public Reports(AppContext context) {
        this.context = context;
    }

    /** What makes a report. */
    public interface Made {
        /** The report. */
        Report report() throws IOException;
    }

    /** Hears what became of it. */
    public interface Hearer {
        /** It is written, or not, in words. */
        void say(String words, boolean trouble);
    }

    /** Writes a report; the ending of the name says as what: .html, .csv or .json. */
    public void write(Path to, Made made, Hearer hearer) {
        try {
            ReportFile.Form.of(to);
        } catch (IllegalArgumentException e) {
            hearer.say(Failures.named(e), true);
            return;
        }
        context.background()
                .run(
                        () -> {
                            ReportFile.write(
                                    made.report(), to, context.settings().cells(), context.zone());
                            return to;
                        },
                        file -> hearer.say(Words.of("report.written", file), false),
                        e -> hearer.say(Failures.words(e), true));
    }

    /** Whether a name is that of a page. */
    public static boolean isPage(Path file) {
        try {
            return ReportFile.Form.of(file) == ReportFile.Form.HTML;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }
}
