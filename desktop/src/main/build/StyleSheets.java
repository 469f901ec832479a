import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.css.Stylesheet;

/**
 * Makes the style sheets that the window loads, run by the build: {@code java StyleSheets.java CLASSES}, where CLASSES is the
 * folder of the compiled classes and resources of this module. Each sheet becomes a binary one, which is read in a third of the
 * time; the toolkit takes it by itself where it lies beside the one in words. Of the base theme the rules go that are for controls
 * this program does not have: the toolkit holds every control it meets against all of them. {@code StyleSheetsTest} says when
 * such a control comes to be used.
 */
final class StyleSheets {

    /** Style classes of the base theme for what this program does not show. */
    private static final Pattern LEFT_OUT = Pattern.compile(
            "accordion|bb-code|breadcrumbs|calendar|card|.*chart.*|axis.*|default-color\\d|.*legend-symbol|color-.*|custom-color-dialog"
                    + "|custom-text-field|deck-pane|html-editor.*|input-group|modal-.*|notification|pagination.*|popover"
                    + "|progress-slider|ring-progress-indicator|tile|tile-base|titled-pane|toggle-switch|tool-bar.*|tree-view"
                    + "|title-\\d|text-(?:caption|small|bold|bolder|normal|lighter|italic|oblique|underlined|strikethrough|muted"
                    + "|subtle|on-emphasis)|(?:bg|border)-(?:default|inset|subtle|muted|neutral.*|accent.*|warning.*|success.*|danger.*)"
                    + "|elevated-\\d|interactive|button-outlined|button-circle|rounded|bordered|striped|alt-icon|floating|classic"
                    + "|arrows-on-.*|split-arrows-.*");

    private static final Pattern RULE = Pattern.compile("([^{}]*)\\{([^{}]*)}");
    private static final Pattern COMMENT = Pattern.compile("/\\*.*?\\*/", Pattern.DOTALL);
    private static final Pattern STYLE_CLASS = Pattern.compile("\\.([A-Za-z][\\w-]*)");

    private StyleSheets() {}

    public static void main(String[] args) throws IOException {
        Path resources = Path.of(args[0], "org", "mendedleaf", "desktop");
        for (String name : List.of("leaf", "leaf-dark")) {
            toBinary(resources.resolve(name + ".css"), resources.resolve(name + ".bss"));
        }
        for (String name : List.of("primer-light", "primer-dark")) {
            Path shorter = Files.createTempFile(name, ".css");
            try {
                Files.writeString(shorter, withoutLeftOut(theme(name)));
                toBinary(shorter, resources.resolve(name + ".bss"));
            } finally {
                Files.delete(shorter);
            }
        }
    }

    private static void toBinary(Path from, Path to) throws IOException {
        File made = to.toFile();
        Stylesheet.convertToBinary(from.toFile(), made);
        if (!made.isFile() || made.length() == 0) {
            throw new IOException("No style sheet came of " + from);
        }
    }

    private static String theme(String name) throws IOException {
        try (InputStream in = ClassLoader.getSystemResourceAsStream("atlantafx/base/theme/" + name + ".css")) {
            if (in == null) {
                throw new IOException("The base theme " + name + " is not there");
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static String withoutLeftOut(String css) {
        StringBuilder kept = new StringBuilder(css.length());
        Matcher rules = RULE.matcher(COMMENT.matcher(css).replaceAll(""));
        while (rules.find()) {
            List<String> selectors = new ArrayList<>();
            for (String selector : rules.group(1).split(",")) {
                if (!isLeftOut(selector)) {
                    selectors.add(selector.strip());
                }
            }
            if (!selectors.isEmpty()) {
                kept.append(String.join(",", selectors)).append('{').append(rules.group(2)).append("}\n");
            }
        }
        return kept.toString();
    }

    private static boolean isLeftOut(String selector) {
        Matcher classes = STYLE_CLASS.matcher(selector);
        while (classes.find()) {
            if (LEFT_OUT.matcher(classes.group(1)).matches()) {
                return true;
            }
        }
        return false;
    }
}
