package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Locale;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.ComparisonHtml;
import org.mendedleaf.core.compare.ComparisonReport;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.compare.UnifiedDiff;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;

/** The large view of a version without its scene: whether it is open, and what is taken out of it. */
public final class ReadingModel {

    private final AppContext context;
    private final LineModel line;
    private final BooleanProperty open = new SimpleBooleanProperty();
    private boolean wanted;
    private final BooleanProperty canRestore = new SimpleBooleanProperty();

    ReadingModel(AppContext context, LineModel line) {
        this.context = context;
        this.line = line;
        line.lineProperty().addListener((o, a, l) -> {
            if (l == null) {
                open.set(false);
            }
        });
        line.chosenProperty().addListener((o, a, v) -> {
            if (wanted && v != null) {
                wanted = false;
                open.set(true);
            }
        });
    }

    /** Whether it is open. */
    public BooleanProperty openProperty() {
        return open;
    }

    /** Opens it, as soon as the line of the selected file is there. */
    public void open() {
        wanted = line.chosenProperty().get() == null;
        open.set(!wanted);
    }

    /** Whether the chosen version can be restored here and now. */
    BooleanProperty canRestoreProperty() {
        return canRestore;
    }

    /** A name for the file that a difference is written into. */
    String exportName(Detail.Compared compared, String ending) {
        String name = line.name();
        int dot = name.lastIndexOf('.');
        String stem = dot > 0 ? name.substring(0, dot) : name;
        return Words.of("reading.exportName", stem, compared.version().label()) + "." + ending;
    }

    /** Hears what became of an export. */
    interface Hearer {
        void say(String words, boolean trouble);
    }

    /** Writes a difference into a new file: a table, or a unified diff, when its name ends so, else a page of its own. */
    void export(Detail.Compared compared, Path file, Hearer hearer) {
        String title = line.name();
        context.background()
                .run(
                        () -> {
                            // Who chose the name of a file that is there was asked already.
                            Files.write(
                                    file,
                                    written(title, compared, String.valueOf(file.getFileName())),
                                    StandardOpenOption.CREATE,
                                    StandardOpenOption.TRUNCATE_EXISTING);
                            return file;
                        },
                        done -> hearer.say(Words.of("reading.exported", done), false),
                        e -> hearer.say(Words.of("reading.notExported", file, Failures.named(e)), true));
    }

    private byte[] written(String title, Detail.Compared compared, String name) throws IOException {
        String lower = name.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".patch") || lower.endsWith(".diff")) {
            Pair pair = compared.contents().get();
            Side before = pair.before().orElseThrow();
            Side after = pair.after().orElseThrow();
            return UnifiedDiff.of(before.name(), before.content(), after.name(), after.content());
        }
        Comparison comparison = compared.comparison();
        String text = lower.endsWith(".csv")
                ? ComparisonReport.csv(comparison, context.settings().cells())
                : ComparisonHtml.page(title, compared.before(), compared.after(), comparison);
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
