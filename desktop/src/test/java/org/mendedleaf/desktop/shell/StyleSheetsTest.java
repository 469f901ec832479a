package org.mendedleaf.desktop.shell;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.io.IOException;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.css.CssParser;
import javafx.css.Rule;
import javafx.css.Selector;
import javafx.css.Stylesheet;
import org.junit.jupiter.api.Test;

/** The binary style sheets that the build makes say what those in words say, for all controls that the window has. */
class StyleSheetsTest {

    private static final Pattern STYLE_CLASS = Pattern.compile("\\.([A-Za-z][\\w-]*)");
    private static final Pattern WORD = Pattern.compile("\"([a-z][a-z0-9-]*)\"");
    private static final Pattern CONTROL = Pattern.compile("javafx\\.scene\\.(?:control|chart|web)\\.([A-Z]\\w+);");

    @Test
    void ourOwnSheetsAreWholeInTheirBinaryForm() throws IOException {
        for (String name : List.of("leaf", "leaf-dark")) {
            URL words = resource(name + ".css");
            URL binary = resource(name + ".bss");
            assertEquals(rules(new CssParser().parse(words)), rules(Stylesheet.loadBinary(binary)), name);
        }
    }

    @Test
    void ofTheBaseThemeOnlyRulesForOtherControlsAreLeftOut() throws IOException {
        for (boolean dark : List.of(false, true)) {
            String address = Theme.baseTheme(dark);
            assertTrue(address.endsWith(".bss"), address);
            Set<String> kept = rules(Stylesheet.loadBinary(new URL(address)));
            String original =
                    dark ? new PrimerDark().getUserAgentStylesheet() : new PrimerLight().getUserAgentStylesheet();
            Set<String> all = rules(new CssParser().parse(StyleSheetsTest.class.getResource(original)));

            assertTrue(all.containsAll(kept), "what is kept is as it was");
            assertTrue(
                    kept.size() > 300 && kept.size() < all.size() * 2 / 3,
                    kept.size() + " of " + all.size() + " are kept");
            Set<String> known = new HashSet<>(styleClassesWeSet());
            kept.forEach(rule -> known.addAll(styleClasses(rule)));
            List<String> missed = all.stream()
                    .filter(rule -> !kept.contains(rule) && known.containsAll(styleClasses(rule)))
                    .toList();
            assertEquals(List.of(), missed, "rules that are left out though all their style classes are there");
        }
    }

    /** A control that somebody brings into the window later would stand there without its looks. */
    @Test
    void noControlIsUsedWhoseRulesAreLeftOut() throws IOException {
        Set<String> without = Set.of(
                "Accordion",
                "ColorPicker",
                "HTMLEditor",
                "Pagination",
                "TitledPane",
                "ToolBar",
                "TreeView",
                "TreeCell");
        Set<String> used = new TreeSet<>();
        for (String source : sources()) {
            Matcher controls = CONTROL.matcher(source);
            while (controls.find()) {
                used.add(controls.group(1));
            }
            assertFalse(source.contains("javafx.scene.chart"), "charts have no rules");
            assertFalse(
                    source.contains("atlantafx.base.controls"), "controls of the base theme's library have no rules");
        }
        assertTrue(used.contains("TreeTableView"), "controls are found in the sources: " + used);
        used.retainAll(without);
        assertEquals(Set.of(), used);
    }

    private static URL resource(String name) {
        URL url = Theme.class.getResource("/org/mendedleaf/desktop/" + name);
        assertTrue(url != null, name + " is made by the build");
        return url;
    }

    /** Each selector with what it says, in words that do not depend on where the sheet lies. */
    private static Set<String> rules(Stylesheet sheet) {
        Set<String> rules = new TreeSet<>();
        for (Rule rule : sheet.getRules()) {
            String says = rule.getDeclarations().stream()
                    .map(d -> d.getProperty() + ":" + (d.getParsedValue().getConverter() == null ? "" : "converted")
                            + d.isImportant())
                    .collect(Collectors.joining(";", "{", "}"));
            for (Selector selector : rule.getSelectors()) {
                rules.add(selector + says);
            }
        }
        return rules;
    }

    private static Set<String> styleClasses(String rule) {
        Set<String> classes = new HashSet<>();
        Matcher matcher = STYLE_CLASS.matcher(rule.substring(0, rule.indexOf('{')));
        while (matcher.find()) {
            classes.add(matcher.group(1));
        }
        return classes;
    }

    private static Set<String> styleClassesWeSet() throws IOException {
        Set<String> words = new HashSet<>();
        for (String source : sources()) {
            source.lines()
                    .filter(line -> line.contains("StyleClass") || line.contains("styled("))
                    .forEach(line -> {
                        Matcher matcher = WORD.matcher(line);
                        while (matcher.find()) {
                            words.add(matcher.group(1));
                        }
                    });
        }
        assertTrue(words.size() > 50, "style classes are found in the sources: " + words);
        return words;
    }

    private static List<String> sources() throws IOException {
        List<String> sources = new ArrayList<>();
        try (Stream<Path> files = Files.walk(Path.of("src/main/java"))) {
            for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
                sources.add(Files.readString(file));
            }
        }
        return sources;
    }
}
