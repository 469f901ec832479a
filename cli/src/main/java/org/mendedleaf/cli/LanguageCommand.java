package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Chooses the language of all words, on the command line and in the window. */
@Command(name = "language", description = "${bundle:cli.language}")
final class LanguageCommand extends Base {

    private static final String SYSTEM = "system";

    @Parameters(paramLabel = "LANGUAGE", arity = "0..1", descriptionKey = "cli.language.which")
    @Nullable
    String which;

    LanguageCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<String> known = Words.LANGUAGES.stream().map(Locale::toLanguageTag).toList();
        String chosen = which == null ? null : which.toLowerCase(Locale.ROOT);
        if (chosen != null) {
            if (!chosen.equals(SYSTEM) && !known.contains(chosen)) {
                throw new IllegalArgumentException(
                        Words.of("cli.language.unknown", which, String.join(", ", known) + ", " + SYSTEM));
            }
            settings().language(chosen.equals(SYSTEM) ? null : chosen);
            Words.use(settings().language());
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("language", Words.locale().getLanguage());
            map.put("chosen", settings().language());
            map.put("known", known);
            printJson(map);
            return ExitCodes.DONE;
        }
        String name = Words.locale().getDisplayLanguage(Words.locale());
        say(settings().language() == null ? "cli.language.ofSystem" : "cli.language.is", name);
        return ExitCodes.DONE;
    }
}
