package org.mendedleaf.desktop.intake;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.Arrivals;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Stage;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Facts;
import org.mendedleaf.desktop.shell.Background;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** Putting in a revision of one file, without its scene: what just arrived, how it is put in, who is told. */
public final class PutModel {

    private static final int MOST = 30;

    private final Desk desk;
    private final Background.Newest arrivalsQuestion;
    private final Background.Newest placeQuestion;
    private final ReadOnlyObjectWrapper<List<Arrivals.Arrival>> arrivals = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<String>> people = new ReadOnlyObjectWrapper<>(List.of());
    private final BooleanProperty drafts = new SimpleBooleanProperty();
    private final StringProperty note = new SimpleStringProperty("");
    private final BooleanProperty take = new SimpleBooleanProperty();
    private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(Stage.BY_RULE);
    private final Set<String> tell = new TreeSet<>();
    private final BooleanProperty open = new SimpleBooleanProperty();
    private @Nullable Held held;
    private String path = "";
    private @Nullable Evidence evidence;

    /** The model over this desk. */
    public PutModel(Desk desk) {
        this.desk = desk;
        this.arrivalsQuestion = desk.background().new Newest();
        this.placeQuestion = desk.background().new Newest();
    }

    /** The desk. */
    public Desk desk() {
        return desk;
    }

    /** Whether it is open. */
    public BooleanProperty openProperty() {
        return open;
    }

    /** The newest files of the folders in which revisions arrive, likely ones first. */
    public ReadOnlyObjectProperty<List<Arrivals.Arrival>> arrivalsProperty() {
        return arrivals.getReadOnlyProperty();
    }

    /** Who can be told: members of the place, and all whose address is known. */
    public ReadOnlyObjectProperty<List<String>> peopleProperty() {
        return people.getReadOnlyProperty();
    }

    /** Whether the place has drafts. */
    public BooleanProperty draftsProperty() {
        return drafts;
    }

    /** The note. */
    public StringProperty noteProperty() {
        return note;
    }

    /** Whether the file is removed from where it was. */
    public BooleanProperty takeProperty() {
        return take;
    }

    /** Whether it is a draft. */
    public ObjectProperty<Stage> stageProperty() {
        return stage;
    }

    /** Tells somebody, or does not. */
    public void tell(String name, boolean on) {
        if (on) {
            tell.add(name);
        } else {
            tell.remove(name);
        }
    }

    /** Opens it for a file. */
    public void open(Held of, Line line) {
        held = of;
        path = line.path();
        evidence = Putting.evidence(desk, of);
        note.set("");
        take.set(false);
        stage.set(Stage.BY_RULE);
        tell.clear();
        arrivals.set(List.of());
        open.set(true);
        look();
        lookAtPlace(of);
    }

    /** Closes it. */
    public void close() {
        open.set(false);
        arrivalsQuestion.drop();
    }

    /** The path that is put in to. */
    public String path() {
        return path;
    }

    /** Runs something on the thread of the screen again and again; what is given back ends that. */
    Runnable every(java.time.Duration time, Runnable work) {
        return desk.background().every(time, work);
    }

    /** Looks again what arrived; called from time to time while it is open. */
    public void look() {
        if (!open.get()) {
            return;
        }
        Evidence by = evidence;
        String file = path;
        if (by == null) {
            return;
        }
        List<Path> folders = desk.home().arrivals();
        arrivalsQuestion.ask(
                () -> Arrivals.look(folders, by, file, MOST, desk.clock().instant()),
                found -> {
                    if (!found.equals(arrivals.get())) {
                        arrivals.set(found);
                    }
                },
                e -> arrivals.set(List.of()));
    }

    /** Looks into one folder more from now on. */
    public void addFolder(Path folder) throws IOException {
        List<Path> all = new ArrayList<>(desk.home().arrivals());
        if (!all.contains(folder)) {
            all.add(folder);
            desk.home().arrivals(all);
        }
        look();
    }

    private record Looked(boolean drafts, List<String> people) {}

    private void lookAtPlace(Held of) {
        placeQuestion.ask(
                () -> {
                    PlaceSettings settings;
                    try (Reading reading = of.vault().read()) {
                        settings = of.place().isOutside()
                                ? Facts.of(reading, of.place())
                                        .map(Facts::settings)
                                        .orElse(PlaceRules.STANDARD.settings())
                                : PlaceRules.of(reading, of.place()).settings();
                    }
                    Set<String> names = new TreeSet<>(desk.home().addresses().keySet());
                    settings.members().stream().map(Member::who).forEach(names::add);
                    names.remove(desk.home().who());
                    return new Looked(settings.get(Setting.NUMBERING).equals("drafts"), List.copyOf(names));
                },
                looked -> {
                    drafts.set(looked.drafts());
                    people.set(looked.people());
                },
                e -> people.set(List.of()));
    }

    /** How it is put in, as chosen. */
    public PutOptions options() {
        return new PutOptions(note.get().strip(), stage.get(), take.get(), List.copyOf(tell));
    }

    /** Puts a file in as the next version. */
    public void put(Path file, Putting.Hearer hearer) {
        Held of = held;
        if (of != null) {
            new Putting(desk).put(of, file, path, options(), hearer);
        }
    }
}
