package org.mendedleaf.core.rules;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RuleStore;
import org.mendedleaf.core.catalogue.SettingChanges;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;

/**
 * How a protected folder is worked with: its settings, its members, and who owns it. Until somebody chooses members,
 * everybody at this computer owns the folder; from then on whoever is no member is a reader.
 *
 * <p>These rules keep people from doing by accident in Mended Leaf what is not theirs to do. They do not keep anybody
 * from the files themselves: that is for the permissions of the file system.
 *
 * @param settings those of {@link #SETTINGS}, with the members
 * @param owner who chose the members; empty while there are none
 */
public record PlaceRules(PlaceSettings settings, String owner) {

    /** The settings that a folder has, in the order in which they are shown. */
    public static final List<Setting> SETTINGS = List.of(
            Setting.VERSIONING,
            Setting.NUMBERING,
            Setting.KEEP_VERSIONS,
            Setting.KEEP_DRAFTS_OF,
            Setting.DRAFTS_SEEN_BY,
            Setting.PUBLISHING,
            Setting.CHECK_OUT,
            Setting.COLLISION);

    /** What a folder is set to before anybody chose anything. */
    public static final PlaceRules DEFAULT = new PlaceRules(PlaceSettings.standard(SETTINGS), "");

    private static final String OWNER = "owner";

    /** The rules of a folder as a reader sees them. */
    public static PlaceRules of(Reading reading, Place place) throws IOException {
        return of(RuleStore.of(reading), place);
    }

    /** The rules of a folder as a session sees them. */
    public static PlaceRules of(WriteSession session, Place place) throws IOException {
        return of(RuleStore.of(session), place);
    }

    private static PlaceRules of(RuleStore store, Place place) throws IOException {
        PlaceSettings settings = DEFAULT.settings();
        Map<String, String> rules = store.rules(place.id());
        for (Setting s : SETTINGS) {
            String value = rules.get(s.text());
            settings = value == null ? settings : settings.with(s, value);
        }
        List<Member> members = new ArrayList<>();
        store.members(place.id()).forEach((who, role) -> members.add(new Member(who, Role.parse(role))));
        return new PlaceRules(settings.with(members), rules.getOrDefault(OWNER, ""));
    }

    /** The role that somebody has. */
    public Role role(String who) {
        if (owner.isEmpty() || owner.equals(who)) {
            return Role.OWNER;
        }
        return settings.members().stream()
                .filter(m -> m.who().equals(who))
                .map(Member::role)
                .findFirst()
                .orElse(Role.READER);
    }

    /** What somebody may do. */
    public Rights rights(String who, Place place) {
        return new Rights(who, role(who), settings, place.label());
    }

    /** Notes in the journal what is other about the settings and members of a place. */
    public static void note(
            WriteSession session, long place, PlaceSettings before, PlaceSettings after, Instant now, String who)
            throws IOException {
        for (Map.Entry<Setting, String> each : after.values().entrySet()) {
            Setting s = each.getKey();
            SettingChanges.note(session, place, now, who, s.text(), before.get(s), each.getValue());
        }
        Map<String, String> was = roles(before);
        Map<String, String> became = roles(after);
        Set<String> all = new TreeSet<>(was.keySet());
        all.addAll(became.keySet());
        for (String member : all) {
            SettingChanges.note(
                    session, place, now, who, member, was.getOrDefault(member, ""), became.getOrDefault(member, ""));
        }
    }

    private static Map<String, String> roles(PlaceSettings settings) {
        Map<String, String> roles = new TreeMap<>();
        settings.members().forEach(m -> roles.put(m.who(), m.role().text()));
        return roles;
    }

    /**
     * Stores other settings and members, and notes it in the journal.
     *
     * @param who chooses them; becomes the owner when there is none yet and members are chosen
     * @throws NotAllowedException when they do not own the folder
     */
    public void store(WriteSession session, Place place, PlaceSettings wanted, Instant now, String who)
            throws IOException {
        rights(who, place).require(Permission.SETTINGS);
        note(session, place.id(), settings, wanted, now, who);
        for (Setting s : SETTINGS) {
            if (!wanted.get(s).equals(settings.get(s))) {
                RuleStore.rule(session, place.id(), s.text(), wanted.get(s));
            }
        }
        for (Member m : settings.members()) {
            if (wanted.members().stream().noneMatch(w -> w.who().equals(m.who()))) {
                RuleStore.memberEnds(session, place.id(), m.who());
            }
        }
        for (Member m : wanted.members()) {
            if (!settings.members().contains(m)) {
                RuleStore.member(session, place.id(), m.who(), m.role().text());
            }
        }
        String owns = wanted.members().isEmpty() ? "" : owner.isEmpty() ? who : owner;
        if (!owns.equals(owner)) {
            RuleStore.rule(session, place.id(), OWNER, owns);
        }
    }
}
