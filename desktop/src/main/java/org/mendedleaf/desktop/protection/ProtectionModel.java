package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.Warning;
import org.mendedleaf.desktop.shell.Background;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** The Protection screen without its scene: every folder and place with how it is covered, and which is selected. */
public final class ProtectionModel {

    private final Desk desk;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<List<Coverage.Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<Warning>> warnings = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<Coverage.@Nullable Row> selected = new ReadOnlyObjectWrapper<>();
    private final PlaceModel place;
    private final AheadModel ahead;
    private final VaultModel vaults;

    /** The model over this desk. */
    public ProtectionModel(Desk desk) {
        this.desk = desk;
        this.question = desk.background().new Newest();
        this.place = new PlaceModel(desk);
        this.ahead = new AheadModel(desk);
        this.vaults = new VaultModel(desk);
        desk.changesProperty().addListener((o, a, b) -> reload());
        selected.addListener((o, a, row) -> place.show(row));
    }

    /** What is shared. */
    public Desk desk() {
        return desk;
    }

    /** The rows, folders first, then systems. */
    public ReadOnlyObjectProperty<List<Coverage.Row>> rowsProperty() {
        return rows.getReadOnlyProperty();
    }

    /** What calls for attention, the worst first. */
    public ReadOnlyObjectProperty<List<Warning>> warningsProperty() {
        return warnings.getReadOnlyProperty();
    }

    /** The selected row; null when none is. */
    public ReadOnlyObjectProperty<Coverage.@Nullable Row> selectedProperty() {
        return selected.getReadOnlyProperty();
    }

    /** The vaults themselves, and their copies. */
    public VaultModel vaults() {
        return vaults;
    }

    /** The settings of the selected place. */
    public PlaceModel place() {
        return place;
    }

    /** Selects a row. */
    public void select(Coverage.@Nullable Row row) {
        selected.set(row);
    }

    /** Looks again. */
    public void reload() {
        vaults.reload();
        question.ask(
                this::load,
                found -> {
                    Coverage.Row before = selected.get();
                    rows.set(found);
                    warnings.set(Warning.of(found, desk.clock().instant(), desk.zone()));
                    selected.set(found.stream()
                            .filter(r -> before != null && r.where().equals(before.where()))
                            .findFirst()
                            .orElse(found.isEmpty() ? null : found.get(0)));
                },
                e -> org.slf4j.LoggerFactory.getLogger(ProtectionModel.class).warn("coverage is not known", e));
    }

    private List<Coverage.Row> load() throws IOException {
        List<Coverage.Row> all = new ArrayList<>();
        for (OpenVault vault : desk.vaults().values()) {
            all.addAll(Coverage.of(vault, desk.clock().instant(), desk.zone()));
        }
        all.addAll(Coverage.uncovered(UserFolders.home(), all));
        all.sort(Comparator.comparing((Coverage.Row r) -> r.kind().isPresent())
                .thenComparing(r -> r.kind().map(Enum::ordinal).orElse(0))
                .thenComparing(Coverage.Row::name));
        return all;
    }

    /** The place of a row, to work with. */
    static Optional<Held> held(Coverage.Row row) {
        return row.place().flatMap(p -> row.vault().map(v -> new Held(v, p)));
    }

    /** Looks at a place, or runs its backup, now. */
    public void run(Coverage.Row row) {
        held(row).ifPresent(h -> desk.capture(h, r -> {}));
    }

    /** Asks whether somebody has to say that a folder was emptied on purpose. */
    void askEmptied(Coverage.Row row, Consumer<Held> emptied) {
        held(row)
                .filter(h -> !h.place().isOutside() && !row.trouble().isEmpty())
                .ifPresent(h -> desk.background()
                        .run(
                                () -> {
                                    try (Reading reading = h.vault().read()) {
                                        return Capture.looksEmptied(reading, h.place());
                                    }
                                },
                                is -> {
                                    if (is) {
                                        emptied.accept(h);
                                    }
                                },
                                e -> {}));
    }

    /** Captures the folder as empty. */
    void captureEmptied(Held held) {
        desk.captureEmptied(held);
    }

    /** Changes how often a folder is captured and what is left out. */
    public void settings(Coverage.Row row, Rhythm rhythm, List<String> exclusions, Consumer<String> wrong) {
        Optional<Held> held = held(row);
        if (held.isEmpty()) {
            return;
        }
        desk.background()
                .run(
                        () -> {
                            Place p = held.get().place();
                            Protect.check(p.root(), held.get().vault().folder().root(), exclusions);
                            return Protect.place(
                                    held.get().vault(),
                                    p.root(),
                                    rhythm,
                                    exclusions,
                                    desk.clock(),
                                    desk.home().who());
                        },
                        p -> {
                            wrong.accept("");
                            desk.placesChanged();
                        },
                        e -> wrong.accept(String.valueOf(e.getMessage())));
    }

    /** What the versions of the selected folder will take. */
    public AheadModel ahead() {
        return ahead;
    }

    /** The connection of the selected place's system. */
    public Optional<Connection> connection() {
        Coverage.Row row = selected.get();
        return row == null
                ? Optional.empty()
                : row.place().flatMap(Place::outside).flatMap(o -> desk.book().connection(o.system()));
    }
}
