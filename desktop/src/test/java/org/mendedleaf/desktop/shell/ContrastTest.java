package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Words and signs stand out from what is behind them, measured from the tokens as WCAG 2.1 does (1.4.3 and 1.4.11). */
class ContrastTest {

    private static final Path SHEETS = Path.of("src/main/resources/org/mendedleaf/desktop");
    private static final Pattern TOKEN = Pattern.compile("(-leaf-[a-z-]+):\\s*#([0-9A-Fa-f]{6})\\s*;");

    /** What is written in a colour, and what it is written on. */
    private static final Map<String, List<String>> WORDS = Map.of(
            "ink", List.of("paper", "sheet", "past", "moss-soft", "gold-soft", "clay-soft", "slate-soft"),
            "dim", List.of("paper", "sheet", "past"),
            "moss", List.of("paper", "sheet", "moss-soft"),
            "on-moss", List.of("moss"),
            "clay", List.of("paper", "sheet", "past", "clay-soft"),
            "gold", List.of("paper", "sheet", "gold-soft"),
            "slate", List.of("paper", "sheet", "slate-soft", "past"),
            "on-slate", List.of("slate"));

    /** Signs, and the edges of what can be typed into or ticked. */
    private static final Map<String, List<String>> SIGNS =
            Map.of("moss-bar", List.of("paper", "sheet", "past"), "edge", List.of("paper", "sheet"));

    @ParameterizedTest
    @ValueSource(strings = {"light", "dark"})
    void wordsHaveFourAndAHalfToOneAndSignsThree(String theme) throws IOException {
        Map<String, String> tokens = new HashMap<>(tokens("leaf.css"));
        if (theme.equals("dark")) {
            tokens.putAll(tokens("leaf-dark.css"));
        }
        List<String> weak = new ArrayList<>();
        weak(tokens, WORDS, 4.5, weak);
        weak(tokens, SIGNS, 3, weak);
        assertThat(weak).isEmpty();
    }

    private static void weak(
            Map<String, String> tokens, Map<String, List<String>> pairs, double least, List<String> weak) {
        pairs.forEach((over, unders) -> {
            for (String under : unders) {
                double contrast = contrast(tokens.get("-leaf-" + over), tokens.get("-leaf-" + under));
                if (contrast < least) {
                    weak.add("%s on %s: %.2f".formatted(over, under, contrast));
                }
            }
        });
    }

    private static Map<String, String> tokens(String sheet) throws IOException {
        Map<String, String> tokens = new HashMap<>();
        Matcher matcher = TOKEN.matcher(Files.readString(SHEETS.resolve(sheet)));
        while (matcher.find()) {
            tokens.put(matcher.group(1), matcher.group(2));
        }
        assertThat(tokens).hasSizeGreaterThan(15);
        return tokens;
    }

    private static double contrast(String one, String other) {
        double a = luminance(one);
        double b = luminance(other);
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    private static double luminance(String hex) {
        double[] weights = {0.2126, 0.7152, 0.0722};
        double sum = 0;
        for (int i = 0; i < 3; i++) {
            double part = Integer.parseInt(hex.substring(2 * i, 2 * i + 2), 16) / 255.0;
            sum += weights[i] * (part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4));
        }
        return sum;
    }
}
