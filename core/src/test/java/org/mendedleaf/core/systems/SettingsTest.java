package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.wire.Systems;

class SettingsTest {

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aKindIsWrittenAndReadAlikeAndItsStandardSettingsAreGood(SystemKind kind) {
        assertThat(SystemKind.parse(kind.text())).isEqualTo(kind);
        PlaceSettings standard = kind.standardSettings();
        assertThat(standard.values().keySet()).containsExactlyInAnyOrderElementsOf(kind.settings());
        standard.values().forEach((s, v) -> assertThat(s.check(v)).isEqualTo(v));
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void settingsAreThoseOfWhatASystemCan(SystemKind kind) {
        assertThat(kind.settings().contains(Setting.VERSIONING)).isEqualTo(kind.can(Capability.VERSIONS));
        assertThat(kind.settings().contains(Setting.NUMBERING)).isEqualTo(kind.can(Capability.DRAFTS));
        assertThat(kind.settings().contains(Setting.CHECK_OUT)).isEqualTo(kind.can(Capability.CHECK_OUT));
        if (kind.settings().contains(Setting.VERSIONING)) {
            assertThat(kind.choices(Setting.VERSIONING).contains("paused")).isEqualTo(kind.can(Capability.PAUSING));
        }
        assertThat(kind.can(Capability.UNPLUGGING)).isEqualTo(kind == SystemKind.BACKUP_DRIVE);
    }

    @ParameterizedTest
    @EnumSource(Setting.class)
    void aSettingIsWrittenAndReadAlike(Setting setting) {
        assertThat(Setting.parse(setting.text())).isEqualTo(setting);
        setting.choices().forEach(c -> assertThat(setting.check(c)).isEqualTo(c));
        assertThatThrownBy(() -> setting.check("fortnight"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("fortnight");
    }

    @ParameterizedTest
    @ValueSource(strings = {"-1", "1.5", "", " ", "99999999", "1e3", "٣"})
    void aNumberIsAWholeOneThatFits(String text) {
        assertThatThrownBy(() -> Setting.EXPIRE_DAYS.check(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void atLeastOneSnapshotIsKept() {
        assertThatThrownBy(() -> Setting.SNAPSHOT_KEEP.check("0")).isInstanceOf(IllegalArgumentException.class);
        assertThat(Setting.EXPIRE_DAYS.check("0")).isEqualTo("0");
    }

    @Test
    void aPlaceHasNoSettingOfAnotherKind() {
        PlaceSettings store = SystemKind.OBJECT_STORE.standardSettings();
        assertThatThrownBy(() -> store.with(Setting.NUMBERING, "drafts"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("numbering");
        PlaceSettings changed = store.with(Setting.EXPIRE_DAYS, "7");
        assertThat(changed.number(Setting.EXPIRE_DAYS)).isEqualTo(7);
        assertThat(store.number(Setting.EXPIRE_DAYS)).isZero();
    }

    @Test
    void whatDoesNotMatterIsSaidNotToMatter() {
        PlaceSettings library = SystemKind.LIBRARY.standardSettings();
        assertThat(Outlook.matters(Setting.DRAFTS_SEEN_BY, library)).isFalse();
        assertThat(Outlook.matters(Setting.DRAFTS_SEEN_BY, library.with(Setting.NUMBERING, "drafts")))
                .isTrue();
        PlaceSettings store = SystemKind.OBJECT_STORE.standardSettings();
        assertThat(Outlook.matters(Setting.EXPIRE_KEEP, store)).isFalse();
        assertThat(Outlook.matters(Setting.EXPIRE_KEEP, store.with(Setting.EXPIRE_DAYS, "1")))
                .isTrue();
    }

    @Test
    void rolesAreWrittenAndReadAlike() {
        for (Role role : Role.values()) {
            assertThat(Role.parse(role.text())).isEqualTo(role);
        }
        assertThatThrownBy(() -> Role.parse("guest")).hasMessageContaining("reader, editor, owner");
        assertThatThrownBy(() -> SystemKind.parse("shoebox")).hasMessageContaining("webdav");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "library", "ftp://x", "http://", "http:///path", "file:///etc/passwd", "http://a b"})
    void anAddressIsOneOfTheWeb(String text) {
        assertThatThrownBy(() -> Systems.address(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void anAddressMayHaveAPathAndNoSlashAtItsEnd() {
        assertThat(Systems.address("https://x.example/dav/").getPath()).isEqualTo("/dav");
        assertThat(List.of(Systems.address("http://127.0.0.1:80").getPort())).containsExactly(80);
    }
}
