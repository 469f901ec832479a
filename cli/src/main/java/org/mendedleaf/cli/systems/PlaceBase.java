package org.mendedleaf.cli.systems;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.NotConnectedException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.OutsidePlaceState;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What the commands about one place in another system have in common. */
abstract class PlaceBase extends Base {

    @Parameters(paramLabel = "SYSTEM:PLACE", descriptionKey = "cli.place.place")
    @SuppressWarnings("NullAway.Init")
    String where;

    @Option(names = "--set", paramLabel = "SETTING=VALUE", descriptionKey = "cli.place.setting")
    Map<String, String> set = new LinkedHashMap<>();

    @Option(names = "--member", paramLabel = "WHO=ROLE", descriptionKey = "cli.place.member")
    Map<String, String> member = new LinkedHashMap<>();

    @Option(names = "--backs-up", paramLabel = "FOLDER", descriptionKey = "cli.place.backsUp")
    List<Path> backsUp = new ArrayList<>();

    @Option(names = "--same-as", paramLabel = "FOLDER", descriptionKey = "cli.place.sameAs")
    List<Path> sameAs = new ArrayList<>();

    @Option(names = "--check-every", paramLabel = "MINUTES", descriptionKey = "cli.place.lookEvery")
    int lookEvery;

    public PlaceBase(Surroundings surroundings) {
        super(surroundings);
    }

    Connection connection() throws IOException {
        int colon = where.indexOf(':');
        if (colon < 1) {
            throw new IllegalArgumentException(Words.of("cli.place.where", where));
        }
        String system = where.substring(0, colon);
        return settings().connection(system).orElseThrow(() -> new NotConnectedException(system));
    }

    String placeName() {
        return where.substring(where.indexOf(':') + 1);
    }

    SystemConnector connecting() throws IOException {
        return new SystemConnector(settings(), registry(), clock());
    }

    /** These settings with what was typed put over them. */
    PlaceSettings changed(SystemKind kind, PlaceSettings before) {
        PlaceSettings after = withSettings(before, setting -> {
            String value = java.util.Objects.requireNonNull(set.get(setting.text()));
            if (!setting.isNumber() && !kind.choices(setting).contains(value)) {
                throw new IllegalArgumentException(
                        Words.of("setting.badChoice", setting.text(), value, String.join(", ", kind.choices(setting))));
            }
        });
        if (!member.isEmpty() && !kind.can(Capability.MEMBERS)) {
            throw new IllegalArgumentException(Words.of("cli.place.noMembers"));
        }
        return withMembers(after, before);
    }

    /** With the settings that were typed; each is checked. */
    PlaceSettings withSettings(PlaceSettings before, Consumer<Setting> check) {
        PlaceSettings after = before;
        for (Map.Entry<String, String> e : set.entrySet()) {
            Setting setting = Setting.parse(e.getKey());
            after = after.with(setting, e.getValue());
            check.accept(setting);
        }
        return after;
    }

    /** With the members that were typed. */
    PlaceSettings withMembers(PlaceSettings settings, PlaceSettings before) {
        if (member.isEmpty()) {
            return settings;
        }
        Map<String, Member> members = new LinkedHashMap<>();
        before.members().forEach(m -> members.put(m.who(), m));
        member.forEach((who, role) -> {
            if (role.equals("none")) {
                members.remove(who);
            } else {
                members.put(who, new Member(who, Role.parse(role)));
            }
        });
        return settings.with(List.copyOf(members.values()));
    }

    /** Declares what belongs together, and how often to look. */
    void relate(OpenVault open, Place place, SystemKind kind) throws IOException {
        if (!backsUp.isEmpty() && kind != SystemKind.BACKUP_DRIVE) {
            throw new IllegalArgumentException(Words.of("cli.place.noBackup", where));
        }
        for (Path folder : backsUp) {
            try (Located located = locate(folder)) {
                sameVault(open, located);
                connecting().relate(open, BackupRun.relation(located.place(), located.path(), place));
            }
        }
        for (Path folder : sameAs) {
            try (Located located = locate(folder)) {
                sameVault(open, located);
                connecting().relate(open, new Relation(located.place().id(), located.path(), place.id(), ""));
            }
        }
        if (lookEvery > 0) {
            connecting().rhythm(open, (Source.Outside) place.source(), Rhythm.every(lookEvery));
        }
    }

    private static void sameVault(OpenVault open, Located located) {
        if (!open.folder().root().equals(located.vault().folder().root())) {
            throw new IllegalArgumentException(Words.of("cli.restore.otherVault", located.file()));
        }
    }

    /** The effect of settings, and what they forget of what is there. */
    List<String> effects(OpenVault open, Place place, SystemKind kind, PlaceSettings settings) throws IOException {
        List<String> words = new ArrayList<>(Outlook.effects(kind, settings));
        if (kind.can(Capability.MEMBERS)) {
            words.add(Outlook.seenBy(settings));
        }
        if (!kind.settings().isEmpty()) {
            try (Reading reading = open.read()) {
                words.add(Outlook.forgets(reading, place, kind, settings, now()).words(kind, now(), zone()));
            }
        }
        return words;
    }

    static Map<String, Object> json(Place place, OutsidePlaceState facts) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("place", place.where());
        map.put("kind", facts.kind().text());
        map.put("role", facts.role().text());
        Map<String, String> settings = new LinkedHashMap<>();
        facts.settings().values().forEach((s, v) -> settings.put(s.text(), v));
        map.put("settings", settings);
        map.put(
                "members",
                facts.settings().members().stream()
                        .map(m -> Map.of("who", m.who(), "role", m.role().text()))
                        .toList());
        map.put("usedBytes", facts.usedBytes());
        map.put("totalBytes", facts.totalBytes());
        facts.awaySince().ifPresent(a -> map.put("awaySince", a.toString()));
        facts.unfinished().ifPresent(a -> map.put("unfinishedRun", a.toString()));
        return map;
    }
}
