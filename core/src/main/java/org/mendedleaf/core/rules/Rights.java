package org.mendedleaf.core.rules;

import java.util.Optional;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.words.Words;

/**
 * What one person may do in one place. Pure.
 *
 * @param who they are
 * @param role they have there
 * @param settings of the place
 * @param place what people call it
 */
public record Rights(String who, Role role, PlaceSettings settings, String place) {

    /** Whether they may do this. */
    public boolean may(Permission deed) {
        boolean editor = role != Role.READER;
        boolean owner = role == Role.OWNER;
        return switch (deed) {
            case COMMENT -> true;
            case SEE_DRAFTS ->
                switch (settings.get(Setting.DRAFTS_SEEN_BY)) {
                    case "everybody" -> true;
                    case "owner" -> owner;
                    default -> editor;
                };
            case CHANGE, CHECK_OUT, NOTE -> editor;
            case PUBLISH -> settings.get(Setting.PUBLISHING).equals("owner") ? owner : editor;
            case END_CHECK_OUT, SETTINGS, ERASE -> owner;
        };
    }

    /**
     * Refuses what they may not do.
     *
     * @throws NotAllowedException with a message for the user
     */
    public void require(Permission deed) throws NotAllowedException {
        if (!may(deed)) {
            throw new NotAllowedException(Words.of(
                    "rights." + deed,
                    who,
                    Words.of("role.a." + role.text()),
                    place,
                    Words.of("role.least." + least(deed).text())));
        }
    }

    private Role least(Permission deed) {
        for (Role r : Role.values()) {
            if (new Rights(who, r, settings, place).may(deed)) {
                return r;
            }
        }
        return Role.OWNER;
    }

    /** Whether they may see a file of this visibility. */
    public boolean sees(FileProperties.Visibility visibility) {
        return switch (visibility) {
            case EVERYBODY -> true;
            case EDITORS -> role != Role.READER;
            case OWNER -> role == Role.OWNER;
        };
    }

    /**
     * Why they may not change the content of a file now, as a message; empty when they may.
     *
     * @param out who has it checked out
     * @param exists whether the file is there; a new one cannot be checked out
     * @param path of the file
     */
    public Optional<String> locked(Optional<CheckOut> out, boolean exists, String path) {
        if (out.isPresent()) {
            return out.get().who().equals(who)
                    ? Optional.empty()
                    : Optional.of(Words.of("checkout.others", path, out.get().who()));
        }
        return exists && settings.get(Setting.CHECK_OUT).equals("needed")
                ? Optional.of(Words.of("checkout.needed", path, place))
                : Optional.empty();
    }
}
