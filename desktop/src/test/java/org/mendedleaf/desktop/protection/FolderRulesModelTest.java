package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.desktop.context.AppContextTest;

/** How a folder is worked with: its settings and members. */
class FolderRulesModelTest extends AppContextTest {

    private FolderRulesModel model;

    @BeforeEach
    void rules() throws Exception {
        model = new FolderRulesModel(context, openPlace);
        until(() -> model.rulesProperty().get() != null);
    }

    private String value(Setting setting) {
        return Objects.requireNonNull(model.rulesProperty().get()).settings().get(setting);
    }

    private String stored(Setting setting) throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return PlaceRules.of(reading, openPlace.place()).settings().get(setting);
        }
    }

    private Versioning versioning() {
        try (Reading reading = openPlace.vault().read()) {
            return reading.places().get(0).versioning();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Test
    void aSettingThatIsChangedIsStoredAndShown() throws Exception {
        assertThat(model.mayChange()).isTrue();
        model.change(Setting.NUMBERING, "drafts");
        until(() -> value(Setting.NUMBERING).equals("drafts"));
        assertThat(stored(Setting.NUMBERING)).isEqualTo("drafts");
        assertThat(model.problemProperty().get()).isEmpty();
    }

    @Test
    void aValueThatIsNoneIsSaidAndChangesNothing() throws Exception {
        model.change(Setting.KEEP_VERSIONS, "many");
        assertThat(model.problemProperty().get()).isNotEmpty();
        assertThat(stored(Setting.KEEP_VERSIONS)).isEqualTo(Setting.KEEP_VERSIONS.standard());
        model.change(Setting.KEEP_VERSIONS, "9");
        until(() -> value(Setting.KEEP_VERSIONS).equals("9"));
        assertThat(model.problemProperty().get()).isEmpty();
    }

    @Test
    void membersGetARoleAnotherOneAndNone() throws Exception {
        model.member(" Ines ", Role.OWNER);
        until(() -> members() == 1);
        model.member("Tomas", Role.READER);
        until(() -> members() == 2);
        model.member("Tomas", Role.EDITOR);
        until(() -> Objects.requireNonNull(model.rulesProperty().get())
                .settings()
                .members()
                .contains(new Member("Tomas", Role.EDITOR)));
        assertThat(members()).isEqualTo(2);
        model.member("Tomas", null);
        until(() -> members() == 1);
        model.member("  ", Role.OWNER);
        assertThat(members()).isEqualTo(1);
    }

    private int members() {
        return Objects.requireNonNull(model.rulesProperty().get())
                .settings()
                .members()
                .size();
    }

    @Test
    void whoDoesNotOwnTheFolderCannotChangeItsSettings() throws Exception {
        model.member("Ines", Role.OWNER);
        until(() -> members() == 1);
        model.member("Tomas", Role.READER);
        until(() -> members() == 2);
        context.settings().workAs("Tomas");
        assertThat(model.mayChange()).isFalse();
        model.change(Setting.NUMBERING, "drafts");
        until(() -> !model.problemProperty().get().isEmpty());
        assertThat(stored(Setting.NUMBERING)).isEqualTo("whole");
    }

    @Test
    void versioningIsPausedAndGoesOnWithACaptureThatSaysWhatWasMissed() throws Exception {
        model.change(Setting.VERSIONING, "paused");
        until(() -> versioning() == Versioning.PAUSED);
        save("missed.txt", "written meanwhile", java.time.Instant.now());
        until(() -> value(Setting.VERSIONING).equals("paused"));
        model.change(Setting.VERSIONING, "on");
        until(() -> versioning() == Versioning.ON);
        until(() -> kept("missed.txt"));
        until(() -> !context.noticeProperty().get().words().isEmpty());
    }

    private boolean kept(String path) {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), path).isPresent();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }
}
