package org.mendedleaf.core.rules;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RuleStore;
import org.mendedleaf.core.line.WriteSession;

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
            Setting.NUMBERING,
            Setting.KEEP_VERSIONS,
            Setting.KEEP_DRAFTS_OF,
            Setting.DRAFTS_SEEN_BY,
            Setting.PUBLISHING,
            Setting.CHECK_OUT,
            Setting.COLLISION);

    /** What a folder is set to before anybody chose anything. */
    public static final PlaceRules STANDARD = new PlaceRules(PlaceSettings.standard(SETTINGS), "");

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
        PlaceSettings settings = STANDARD.settings();
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

    /**
     * Stores other settings and members.
     *
     * @param who chooses them; becomes the owner when there is none yet and members are chosen
     * @throws NotAllowedException when she does not own the folder
     */
    public void store(WriteSession session, Place place, PlaceSettings wanted, String who) throws IOException {
        rights(who, place).require(Deed.SETTINGS);
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
