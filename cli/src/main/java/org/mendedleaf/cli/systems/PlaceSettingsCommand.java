package org.mendedleaf.cli.systems;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Tells what every setting of a place means, for protected folders and for each kind of system. */
@Command(name = "settings", description = "${bundle:cli.place.settings}")
public final class PlaceSettingsCommand extends Base {

    private static final String FOLDER = "folder";
    private static final String SOME = "20";

    @Parameters(arity = "0..1", paramLabel = "KIND", descriptionKey = "cli.place.settings.kind")
    @Nullable
    String kind;

    public PlaceSettingsCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() {
        List<Object> all = new ArrayList<>();
        String wanted = kind;
        if (wanted == null || wanted.equals(FOLDER)) {
            tell(FOLDER, Words.of("cli.place.settings.folder"), PlaceRules.DEFAULT.settings(), null, all);
        }
        for (SystemKind k : SystemKind.values()) {
            boolean named = wanted != null && !wanted.equals(FOLDER) && SystemKind.parse(wanted) == k;
            if ((wanted == null || named) && !k.settings().isEmpty()) {
                tell(k.text(), Words.of("system.kind." + k.text()), k.standardSettings(), k, all);
            }
        }
        if (json) {
            printJson(all);
        }
        return ExitCodes.DONE;
    }

    private void tell(
            String name, String title, PlaceSettings settings, @Nullable SystemKind system, List<Object> all) {
        if (!json) {
            line(title + ":");
        }
        List<List<String>> rows = new ArrayList<>();
        for (Setting s : settings.values().keySet()) {
            List<String> choices = system == null ? s.choices() : system.choices(s);
            List<String> values = s.isNumber() ? numbers(s) : choices;
            for (String value : values) {
                boolean first = value.equals(values.get(0));
                boolean standard = value.equals(s.standard());
                PlaceSettings with = settings.with(s, value);
                rows.add(List.of(
                        "  " + (first ? s.text() : ""),
                        standard ? Words.of("cli.place.settings.standard", value) : value,
                        system == null ? Outlook.folderEffect(s, with) : Outlook.effect(s, with)));
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("kind", name);
                map.put("setting", s.text());
                map.put("value", value);
                map.put("isDefault", standard);
                map.put("means", rows.get(rows.size() - 1).get(2));
                all.add(map);
            }
        }
        if (!json) {
            table(rows, "lll");
        }
    }

    /** Of a number, what none means, where that can be chosen, and some number for all others. */
    private static List<String> numbers(Setting s) {
        String some = s.standard().equals("0") ? SOME : s.standard();
        return s == Setting.SNAPSHOT_KEEP ? List.of(some) : List.of("0", some);
    }
}
