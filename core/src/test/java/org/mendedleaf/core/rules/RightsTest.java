package org.mendedleaf.core.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.FileProperties;

/** Who may do what: the whole table. */
class RightsTest {

    private static Rights rights(Role role, Setting setting, String value) {
        PlaceSettings settings = PlaceRules.DEFAULT.settings();
        return new Rights("Jory", role, setting == null ? settings : settings.with(setting, value), "Front desk");
    }

    @ParameterizedTest
    @CsvSource({
        "SEE_DRAFTS, no, yes, yes",
        "CHANGE, no, yes, yes",
        "CHECK_OUT, no, yes, yes",
        "END_CHECK_OUT, no, no, yes",
        "PUBLISH, no, yes, yes",
        "NOTE, no, yes, yes",
        "COMMENT, yes, yes, yes",
        "SETTINGS, no, no, yes",
        "ERASE, no, no, yes"
    })
    void eachRoleMayDoExactlyThis(Permission deed, String reader, String editor, String owner) {
        assertThat(rights(Role.READER, null, "").may(deed)).isEqualTo(reader.equals("yes"));
        assertThat(rights(Role.EDITOR, null, "").may(deed)).isEqualTo(editor.equals("yes"));
        assertThat(rights(Role.OWNER, null, "").may(deed)).isEqualTo(owner.equals("yes"));
    }

    @ParameterizedTest
    @CsvSource({"everybody, yes, yes, yes", "editors, no, yes, yes", "owner, no, no, yes"})
    void whoSeesDraftsIsAChoice(String value, String reader, String editor, String owner) {
        assertThat(rights(Role.READER, Setting.DRAFTS_SEEN_BY, value).may(Permission.SEE_DRAFTS))
                .isEqualTo(reader.equals("yes"));
        assertThat(rights(Role.EDITOR, Setting.DRAFTS_SEEN_BY, value).may(Permission.SEE_DRAFTS))
                .isEqualTo(editor.equals("yes"));
        assertThat(rights(Role.OWNER, Setting.DRAFTS_SEEN_BY, value).may(Permission.SEE_DRAFTS))
                .isEqualTo(owner.equals("yes"));
    }

    @Test
    void publishingCanBeForTheOwnerAlone() {
        assertThat(rights(Role.EDITOR, Setting.PUBLISHING, "owner").may(Permission.PUBLISH))
                .isFalse();
        assertThat(rights(Role.OWNER, Setting.PUBLISHING, "owner").may(Permission.PUBLISH))
                .isTrue();
        assertThatThrownBy(
                        () -> rights(Role.EDITOR, Setting.PUBLISHING, "owner").require(Permission.PUBLISH))
                .isInstanceOf(NotAllowedException.class)
                .hasMessage("Jory is an editor in Front desk and may not publish there; it takes an owner.");
    }

    @Test
    void aFileIsSeenByThoseItIsFor() {
        assertThat(rights(Role.READER, null, "").sees(FileProperties.Visibility.EVERYBODY))
                .isTrue();
        assertThat(rights(Role.READER, null, "").sees(FileProperties.Visibility.EDITORS))
                .isFalse();
        assertThat(rights(Role.EDITOR, null, "").sees(FileProperties.Visibility.EDITORS))
                .isTrue();
        assertThat(rights(Role.EDITOR, null, "").sees(FileProperties.Visibility.OWNER))
                .isFalse();
        assertThat(rights(Role.OWNER, null, "").sees(FileProperties.Visibility.OWNER))
                .isTrue();
    }

    @Test
    void aFileIsLockedForOthersAndWhereCheckOutIsNeededForWhoDoesNotHaveIt() {
        Optional<CheckOut> mine = Optional.of(new CheckOut(1, "Jory", Instant.EPOCH, 1));
        Optional<CheckOut> others = Optional.of(new CheckOut(1, "Adele", Instant.EPOCH, 1));
        Rights free = rights(Role.OWNER, null, "");
        Rights needed = rights(Role.OWNER, Setting.CHECK_OUT, "needed");
        assertThat(free.locked(Optional.empty(), true, "a")).isEmpty();
        assertThat(free.locked(mine, true, "a")).isEmpty();
        assertThat(free.locked(others, true, "a").orElseThrow()).startsWith("Adele has a checked out");
        assertThat(needed.locked(Optional.empty(), true, "a")).isPresent();
        assertThat(needed.locked(Optional.empty(), false, "a")).as("a new file").isEmpty();
        assertThat(needed.locked(mine, true, "a")).isEmpty();
    }

    @Test
    void untilThereAreMembersEverybodyOwnsAFolderAndThenWhoIsNoneReads() {
        PlaceRules rules = PlaceRules.DEFAULT;
        assertThat(rules.role("anybody")).isEqualTo(Role.OWNER);
        PlaceRules with = new PlaceRules(rules.settings().with(List.of(new Member("Tomas", Role.EDITOR))), "Ines");
        assertThat(with.role("Ines")).isEqualTo(Role.OWNER);
        assertThat(with.role("Tomas")).isEqualTo(Role.EDITOR);
        assertThat(with.role("somebody else")).isEqualTo(Role.READER);
    }
}
