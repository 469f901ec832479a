package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageReport;
import org.mendedleaf.core.systems.Warning;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.Reports;

/** The Protection screen without its scene: every folder and place with how it is covered, and which is selected. */
public final class ProtectionModel {

    private final AppContext context;
    private final ReadOnlyStringWrapper said = new ReadOnlyStringWrapper("");
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<List<Coverage.Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<Warning>> warnings = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<Coverage.@Nullable Row> selected = new ReadOnlyObjectWrapper<>();
    private final PlaceModel place;
    private final AheadModel ahead;
    private final VaultModel vaults;
    private final ServiceModel service;
    private final TraySwitchModel tray;

    /** The model over this desk. */
    public ProtectionModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
        this.place = new PlaceModel(context);
        this.ahead = new AheadModel(context);
        this.vaults = new VaultModel(context);
        this.service = new ServiceModel(
                context, () -> ServiceControl.here(context.settings().folder(), System.getenv()), context::tell);
        this.tray = new TraySwitchModel(
                context, () -> TrayControl.here(context.settings().folder(), System.getenv()), context::tell);
        context.changesProperty().addListener((o, a, b) -> reload());
        selected.addListener((o, a, row) -> place.show(row));
    }

    /** What is shared. */
    public AppContext context() {
        return context;
    }

    /** Whether files are kept when no window is open. */
    ServiceModel service() {
        return service;
    }

    /** Whether an icon in the system tray says so. */
    TraySwitchModel tray() {
        return tray;
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
                    warnings.set(Warning.of(found, context.clock().instant(), context.zone()));
                    selected.set(found.stream()
                            .filter(r -> before != null && r.where().equals(before.where()))
                            .findFirst()
                            .orElse(found.isEmpty() ? null : found.get(0)));
                },
                e -> org.slf4j.LoggerFactory.getLogger(ProtectionModel.class).warn("coverage is not known", e));
    }

    /** What is said of a report that was wanted; empty for nothing. */
    ReadOnlyStringProperty saidProperty() {
        return said.getReadOnlyProperty();
    }

    /** Writes how everything is covered, as it is shown, into a file. */
    void report(Path to) {
        List<Coverage.Row> shown = rows.get();
        new Reports(context)
                .write(
                        to,
                        () -> CoverageReport.of(shown, context.clock().instant(), context.zone()),
                        (words, trouble) -> said.set(words));
    }

    private List<Coverage.Row> load() throws IOException {
        List<Coverage.Row> all = new ArrayList<>();
        for (OpenVault vault : context.vaults().values()) {
            all.addAll(Coverage.of(vault, context.clock().instant(), context.zone()));
        }
        all.addAll(Coverage.uncovered(UserFolders.home(), all));
        all.sort(Comparator.comparing((Coverage.Row r) -> r.kind().isPresent())
                .thenComparing(r -> r.kind().map(Enum::ordinal).orElse(0))
                .thenComparing(Coverage.Row::name));
        return all;
    }

    /** The place of a row, to work with. */
    static Optional<OpenPlace> openPlace(Coverage.Row row) {
        return row.place().flatMap(p -> row.vault().map(v -> new OpenPlace(v, p)));
    }

    /** Looks at a place, or runs its backup, now. */
    public void run(Coverage.Row row) {
        openPlace(row).ifPresent(h -> context.captures().capture(h, r -> {}));
    }

    /** Asks whether somebody has to say that a folder was emptied on purpose. */
    void askEmptied(Coverage.Row row, Consumer<OpenPlace> emptied) {
        openPlace(row)
                .filter(h -> !h.place().isOutside() && !row.trouble().isEmpty())
                .ifPresent(h -> context.background()
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
    void captureEmptied(OpenPlace openPlace) {
        context.captures().captureEmptied(openPlace);
    }

    /** Changes how often a folder is captured and what is left out. */
    public void settings(Coverage.Row row, Rhythm rhythm, List<String> exclusions, Consumer<String> wrong) {
        Optional<OpenPlace> openPlace = openPlace(row);
        if (openPlace.isEmpty()) {
            return;
        }
        context.background()
                .run(
                        () -> {
                            Place p = openPlace.get().place();
                            Protect.check(
                                    p.root(), openPlace.get().vault().folder().root(), exclusions);
                            return Protect.place(
                                    openPlace.get().vault(),
                                    p.root(),
                                    rhythm,
                                    exclusions,
                                    context.clock(),
                                    context.settings().who());
                        },
                        p -> {
                            wrong.accept("");
                            context.placesChanged();
                        },
                        e -> wrong.accept(Failures.named(e)));
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
                : row.place()
                        .flatMap(Place::outside)
                        .flatMap(o -> context.registry().connection(o.system()));
    }
}
