package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.shell.ModelTest;
import org.mendedleaf.standins.StandIns;

/** The Protection screen without its scene. */
class ProtectionModelTest extends ModelTest {

    private StandIns outside;
    private AppContext context;
    private ProtectionModel model;
    private Path folder;

    @BeforeEach
    void open() throws Exception {
        outside = new StandIns(temp.resolve("outside"), "ines");
        folder = Files.createDirectory(temp.resolve("papers")).toRealPath();
        UserSettings home = UserSettings.open(temp.resolve("home"));
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Protect.place(vault, folder, Rhythm.BY_HAND, List.of(), Clock.systemUTC(), "Ines");
            home.addVault(vault.folder().root());
        }
        context = new AppContext(home, Clock.system(ZoneOffset.UTC), screen::add);
        model = new ProtectionModel(context);
        boolean[] ready = {false};
        context.open(() -> ready[0] = true);
        until(() -> ready[0]);
        model.reload();
        until(() -> !model.rowsProperty().get().isEmpty());
    }

    @AfterEach
    void close() throws IOException {
        context.close();
        outside.close();
    }

    private ConnectModel connect(String name, String address, String token) throws Exception {
        ConnectModel connect = new ConnectModel(context);
        connect.nameProperty().set(name);
        connect.addressProperty().set(address);
        connect.tokenProperty().set(token);
        boolean[] done = {false};
        connect.connect(() -> done[0] = true);
        until(() -> done[0] || !connect.problemProperty().get().isEmpty());
        return connect;
    }

    private void library() throws Exception {
        connect("Library", outside.library().address(), outside.library().token("ines"));
        Connection c = context.registry().connection("Library").orElseThrow();
        ConnectModel place = new ConnectModel(context);
        place.placeProperty().set("Minutes");
        place.membersProperty().set("rana, tomas=reader");
        boolean[] done = {false};
        place.create(c, () -> done[0] = true);
        until(() -> done[0]);
        until(() -> row("Library:Minutes").isPresent());
        model.select(row("Library:Minutes").orElseThrow());
        // What is set there is read in the background.
        until(() -> !model.place().draftProperty().get().members().isEmpty());
    }

    private Optional<Coverage.Row> row(String where) {
        return model.rowsProperty().get().stream()
                .filter(r -> r.where().equals(where))
                .findFirst();
    }

    @Test
    void aFolderStandsInTheTableAndItsRhythmCanBeChanged() throws Exception {
        Coverage.Row row = row(folder.toString()).orElseThrow();
        assertThat(row.state()).isEqualTo(CoverageState.NEVER);
        String[] wrong = {"?"};
        model.settings(row, Rhythm.every(60), List.of("*.iso"), w -> wrong[0] = w);
        until(() -> row(folder.toString())
                .flatMap(Coverage.Row::place)
                .filter(p -> p.rhythm().equals(Rhythm.every(60)))
                .isPresent());
        assertThat(wrong[0]).isEmpty();
        model.settings(row, Rhythm.ON_SAVE, List.of("["), w -> wrong[0] = w);
        until(() -> wrong[0].contains("cannot be read"));
    }

    @Test
    void aSystemThatCannotBeConnectedSaysWhyAndIsNotRemembered() throws Exception {
        assertThat(connect("A", "nonsense", "").problemProperty().get()).contains("no address");
        assertThat(connect("a/b", outside.files().address(), "x")
                        .problemProperty()
                        .get())
                .contains("without colon and slash");
        assertThat(connect("A", outside.files().address(), "wrong")
                        .problemProperty()
                        .get())
                .contains("does not accept the token");
        assertThat(context.registry().connections()).isEmpty();
    }

    @Test
    void aNewPlaceHasItsMembersAndSaysWhoSeesIt() throws Exception {
        library();
        assertThat(model.place().draftProperty().get().members())
                .containsExactlyInAnyOrder(new Member("rana", Role.EDITOR), new Member("tomas", Role.READER));
        ConnectModel another = new ConnectModel(context);
        Connection c = context.registry().connection("Library").orElseThrow();
        assertThat(another.outlook(c)).contains("Only you can see it.");
        another.membersProperty().set("rana=reader");
        assertThat(String.join(" ", another.outlook(c))).contains("rana (reader)");
        another.membersProperty().set("rana=queen");
        assertThat(another.outlook(c)).isEmpty();
        assertThat(another.problemProperty().get()).contains("no role");
    }

    @Test
    void whatIsTriedIsKeptWhileTheTableIsLoadedAgain() throws Exception {
        library();
        PlaceModel place = model.place();
        place.change(Setting.REMOVED_DAYS, "7");
        assertThat(place.isChanged()).isTrue();
        boolean[] again = {false};
        // A look has another time than the one before, so that the rows say something new.
        model.rowsProperty().addListener((o, a, b) -> again[0] = true);
        model.run(row("Library:Minutes").orElseThrow());
        until(() -> again[0]);
        assertThat(place.draftProperty().get().get(Setting.REMOVED_DAYS)).isEqualTo("7");
        place.reset();
        assertThat(place.isChanged()).isFalse();
    }

    @Test
    void membersComeAndGoAndAreSaved() throws Exception {
        library();
        PlaceModel place = model.place();
        place.member("rana", null);
        place.member("jory", Role.OWNER);
        place.member(" ", Role.OWNER);
        place.save();
        until(() -> row("Library:Minutes")
                .flatMap(Coverage.Row::facts)
                .map(f -> f.settings().members().stream()
                        .map(Member::who)
                        .sorted()
                        .toList())
                .filter(List.of("jory", "tomas")::equals)
                .isPresent());
    }

    @Test
    void aSettingThatTheSystemRefusesIsSaidAndTheOldOneStays() throws Exception {
        connect("Archive", outside.objects().address(), outside.objects().token("ines"));
        ConnectModel create = new ConnectModel(context);
        create.placeProperty().set("logs");
        boolean[] done = {false};
        create.create(context.registry().connection("Archive").orElseThrow(), () -> done[0] = true);
        until(() -> done[0]);
        until(() -> row("Archive:logs").flatMap(r -> r.facts()).isPresent());
        model.select(row("Archive:logs").orElseThrow());
        model.place().change(Setting.VERSIONING, "off");
        assertThat(model.place().effectsProperty().get().get(0)).contains("No earlier content is kept");
        model.place().save();
        until(() -> model.place().problemProperty().get().contains("not be switched off"));
        assertThat(row("Archive:logs")
                        .orElseThrow()
                        .facts()
                        .orElseThrow()
                        .settings()
                        .get(Setting.VERSIONING))
                .isEqualTo("on");
    }

    @Test
    void onlyAProtectedFolderCanBeDeclaredTheSame() throws Exception {
        library();
        model.place().relate(temp.resolve("nowhere"));
        until(() -> model.place().problemProperty().get().contains("is in no protected folder"));
        model.place().relate(folder.resolve("lease"));
        until(() -> row("Library:Minutes").orElseThrow().related().equals(List.of("papers/lease")));
    }

    @Test
    void whatIsUncoveredOrAwayIsAmongTheWarnings() throws Exception {
        library();
        outside.library().faults().away(true);
        model.run(row("Library:Minutes").orElseThrow());
        until(() -> row("Library:Minutes").orElseThrow().state() == CoverageState.AWAY);
        assertThat(model.warningsProperty().get())
                .anyMatch(w -> w.words().contains("Library:Minutes has not answered since"));
        assertThat(model.connection()).isPresent();
    }
}
