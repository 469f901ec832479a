package org.mendedleaf.desktop.shell;

import java.io.File;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.Node;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Navigator;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutService;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.files.FilesModel;
import org.mendedleaf.desktop.intake.FoldModel;
import org.mendedleaf.desktop.intake.FoldView;
import org.mendedleaf.desktop.intake.GuardModel;
import org.mendedleaf.desktop.intake.GuardView;
import org.mendedleaf.desktop.intake.IntakeModel;
import org.mendedleaf.desktop.intake.IntakeView;
import org.mendedleaf.desktop.intake.StraysModel;
import org.mendedleaf.desktop.intake.StraysView;
import org.mendedleaf.desktop.recovery.CompareModel;
import org.mendedleaf.desktop.recovery.CompareView;
import org.mendedleaf.desktop.recovery.PlanModel;
import org.mendedleaf.desktop.recovery.PlanView;
import org.mendedleaf.desktop.retention.EraseModel;
import org.mendedleaf.desktop.retention.EraseView;
import org.mendedleaf.desktop.retention.HoldModel;
import org.mendedleaf.desktop.retention.HoldView;
import org.mendedleaf.desktop.snapshots.SnapshotsModel;
import org.mendedleaf.desktop.snapshots.SnapshotsView;

/** The ways from the Files screen to the plan, the comparison and the snapshots, and back. */
final class ScreenNavigator implements Navigator, PlanView.Asks, SnapshotsView.Asks {

    private final AppContext context;
    private final FilesModel files;
    private final Consumer<Node> show;
    private final Runnable back;
    private Supplier<Optional<File>> folderAsk = Optional::empty;
    private Supplier<Optional<File>> fileAsk = Optional::empty;
    private Function<String, Optional<File>> saveAsk = name -> Optional.empty();
    private Consumer<Path> opener = path -> {};
    private @Nullable Node shown;

    ScreenNavigator(AppContext context, FilesModel files, Consumer<Node> show, Runnable back) {
        this.context = context;
        this.files = files;
        this.show = show;
        this.back = back;
    }

    void setFolderAsk(Supplier<Optional<File>> ask) {
        folderAsk = ask;
    }

    void setFileAsk(Supplier<Optional<File>> ask) {
        fileAsk = ask;
    }

    void setSaveAsk(Function<String, Optional<File>> ask) {
        saveAsk = ask;
    }

    void setOpener(Consumer<Path> with) {
        opener = with;
    }

    private void said(String words) {
        files.say(words, false, false);
    }

    /** Closes what stands over the screen that is shown, and leaves that as it was; whether it did. */
    boolean leaveDifference() {
        Node screen = shown;
        return screen != null && screen.getScene() != null && DifferenceView.leave(screen);
    }

    /** Whether one of these screens is shown, and may be left now; a running plan may not. */
    boolean leave() {
        Node screen = shown;
        if (screen == null || screen.getScene() == null) {
            return false;
        }
        return screen instanceof PlanView plan
                ? plan.mayLeave()
                : !(screen instanceof IntakeView intake) || intake.mayLeave();
    }

    /** Shows a screen and gives it the keys. */
    private void show(Node screen) {
        shown = screen;
        show.accept(screen);
        // What was left is let go: a plan may be of a million files.
        screen.sceneProperty().addListener((o, was, scene) -> {
            if (scene == null && shown == screen) {
                shown = null;
            }
        });
        javafx.application.Platform.runLater(() -> {
            if (!hasKeys(screen)) {
                screen.requestFocus();
            }
        });
    }

    /** Whether the screen has given the keys to one of its own already. */
    private static boolean hasKeys(Node screen) {
        Node owner = screen.getScene() == null ? null : screen.getScene().getFocusOwner();
        while (owner != null && owner != screen) {
            owner = owner.getParent();
        }
        return owner != null;
    }

    @Override
    public void plan(What what) {
        show(new PlanView(new PlanModel(context, what), this, back, this::said));
    }

    @Override
    public void compare(OpenPlace openPlace, String folder, @Nullable Instant from) {
        CompareModel model = new CompareModel(context, openPlace, folder);
        show(new CompareView(model, from, saveAsk, c -> reveal(model, c), back, this::said));
    }

    /** The file as it was when it is gone at the later moment, else as it is then. */
    private void reveal(CompareModel model, TwoMoments.Change change) {
        boolean gone = change.after().isEmpty();
        Instant to = model.toProperty().get();
        boolean now = to == null || to.equals(org.mendedleaf.core.time.Moment.FAR);
        back.run();
        files.reveal(
                model.openPlace(),
                change.path(),
                change.line(),
                gone ? model.fromProperty().get() : now ? null : to);
    }

    @Override
    public void snapshots(OpenPlace openPlace, String folder) {
        show(new SnapshotsView(
                new SnapshotsModel(context, openPlace, folder),
                this,
                at -> {
                    back.run();
                    files.momentProperty().set(at);
                },
                at -> compare(openPlace, "", at),
                back,
                this::said));
    }

    @Override
    public void guard(PutService.Doubt doubt) {
        show(new GuardView(new GuardModel(context, doubt), new BackToFiles(files, back, this::guard), back));
    }

    @Override
    public void intake(OpenPlace openPlace, List<Path> dropped, String folder) {
        show(new IntakeView(new IntakeModel(context, openPlace, dropped, folder), back, this::said));
    }

    @Override
    public void fold(OpenPlace openPlace, String folder) {
        show(new FoldView(new FoldModel(context, openPlace, folder), back, words -> files.say(words, true, false)));
    }

    @Override
    public void strays(OpenPlace openPlace, String folder) {
        show(new StraysView(new StraysModel(context, openPlace, folder), () -> folderAsk.get(), back));
    }

    @Override
    public void erase(OpenPlace openPlace, Line line, Erasing.What what, int number) {
        show(new EraseView(
                new EraseModel(context, openPlace, line, what, number), back, words -> files.say(words, true, false)));
    }

    @Override
    public void hold(OpenPlace openPlace, List<Hold> choices, String version) {
        show(new HoldView(new HoldModel(context, openPlace, choices, version), back, this::said));
    }

    @Override
    public void holdSnapshot(OpenPlace openPlace, Snapshot snapshot) {
        Node snapshots = shown;
        Hold what = Hold.of(openPlace.place(), Hold.Kind.SNAPSHOT, 0, 0, snapshot.path(), snapshot.id());
        Runnable leave = () -> {
            if (snapshots != null) {
                show(snapshots);
            }
        };
        show(new HoldView(new HoldModel(context, openPlace, List.of(what), ""), leave, this::said));
    }

    @Override
    public Optional<File> folder() {
        return folderAsk.get();
    }

    @Override
    public Optional<File> save(String name) {
        return saveAsk.apply(name);
    }

    @Override
    public void open(Path file) {
        opener.accept(file);
    }

    @Override
    public Supplier<Optional<File>> file() {
        return fileAsk;
    }

    @Override
    public Function<String, Optional<File>> save() {
        return saveAsk;
    }
}
