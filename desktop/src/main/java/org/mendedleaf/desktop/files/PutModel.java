package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.OutsidePlaceState;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutOptions;
import org.mendedleaf.desktop.context.PutService;

/** Putting in a revision of one file, without its scene: what just arrived, how it is put in, who is told. */
public final class PutModel {

    private static final int MOST = 30;

    private final AppContext context;
    private final Background.Newest arrivalsQuestion;
    private final Background.Newest placeQuestion;
    private final ReadOnlyObjectWrapper<List<Arrivals.Arrival>> arrivals = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<String>> people = new ReadOnlyObjectWrapper<>(List.of());
    private final BooleanProperty drafts = new SimpleBooleanProperty();
    private final StringProperty note = new SimpleStringProperty("");
    private final BooleanProperty take = new SimpleBooleanProperty();
    private final ObjectProperty<DraftChoice> stage = new SimpleObjectProperty<>(DraftChoice.BY_RULE);
    private final Set<String> tell = new TreeSet<>();
    private final BooleanProperty open = new SimpleBooleanProperty();
    private @Nullable OpenPlace openPlace;
    private String path = "";
    private @Nullable Evidence evidence;

    /** The model over this desk. */
    public PutModel(AppContext context) {
        this.context = context;
        this.arrivalsQuestion = context.background().new Newest();
        this.placeQuestion = context.background().new Newest();
    }

    /** The desk. */
    public AppContext context() {
        return context;
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

    /** What shall stand at the version that is put in. */
    public StringProperty noteProperty() {
        return note;
    }

    /** Whether the file is removed from where it was. */
    public BooleanProperty takeProperty() {
        return take;
    }

    /** Whether it is a draft. */
    public ObjectProperty<DraftChoice> stageProperty() {
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
    public void open(OpenPlace of, Line line) {
        openPlace = of;
        path = line.path();
        evidence = PutService.evidence(context, of);
        note.set("");
        take.set(false);
        stage.set(DraftChoice.BY_RULE);
        tell.clear();
        arrivals.set(List.of());
        open.set(true);
        look();
        lookAtPlace(of);
    }

    /** Puts nothing in, and forgets what was chosen. */
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
        return context.background().every(time, work);
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
        List<Path> folders = context.settings().arrivals();
        arrivalsQuestion.ask(
                () -> Arrivals.look(folders, by, file, MOST, context.clock().instant()),
                found -> {
                    if (!found.equals(arrivals.get())) {
                        arrivals.set(found);
                    }
                },
                e -> arrivals.set(List.of()));
    }

    /** Looks into one folder more from now on. */
    public void addFolder(Path folder) throws IOException {
        List<Path> all = new ArrayList<>(context.settings().arrivals());
        if (!all.contains(folder)) {
            all.add(folder);
            context.settings().arrivals(all);
        }
        look();
    }

    private record Looked(boolean drafts, List<String> people) {}

    private void lookAtPlace(OpenPlace of) {
        placeQuestion.ask(
                () -> {
                    PlaceSettings settings;
                    try (Reading reading = of.vault().read()) {
                        settings = of.place().isOutside()
                                ? OutsidePlaceState.of(reading, of.place())
                                        .map(OutsidePlaceState::settings)
                                        .orElse(PlaceRules.DEFAULT.settings())
                                : PlaceRules.of(reading, of.place()).settings();
                    }
                    Set<String> names =
                            new TreeSet<>(context.settings().addresses().keySet());
                    settings.members().stream().map(Member::who).forEach(names::add);
                    names.remove(context.settings().who());
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
        return new PutOptions(note.get().strip(), stage.get(), take.get(), List.copyOf(tell), "");
    }

    /** How what came by mail is put in: who sent it is its author, and the subject its note when none was typed. */
    private PutOptions options(Arrivals.Mail mail) {
        String typed = note.get().strip();
        return new PutOptions(
                typed.isEmpty() ? mail.subject() : typed, stage.get(), false, List.copyOf(tell), author(mail));
    }

    /** Who sent a message, by the name under which the address is known here. */
    public String author(Arrivals.Mail mail) {
        return mail.author(context.settings().addresses());
    }

    /** Puts what arrived in as the next version. */
    public void put(Arrivals.Arrival arrival, PutService.Hearer hearer) {
        Optional<Arrivals.Mail> mail = arrival.mail();
        if (mail.isEmpty()) {
            put(arrival.file(), hearer);
            return;
        }
        OpenPlace of = openPlace;
        if (of != null) {
            PutOptions how = options(mail.get());
            String target = path;
            context.background()
                    .run(
                            arrival::content,
                            file -> new PutService(context).put(of, file, target, how, hearer),
                            hearer::failed);
        }
    }

    /** Puts a file in as the next version. */
    public void put(Path file, PutService.Hearer hearer) {
        OpenPlace of = openPlace;
        if (of != null) {
            new PutService(context).put(of, file, path, options(), hearer);
        }
    }
}
