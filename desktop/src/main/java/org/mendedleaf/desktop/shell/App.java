package org.mendedleaf.desktop.shell;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonBar;
import javafx.scene.control.ButtonType;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputDialog;
import javafx.scene.image.Image;
import javafx.scene.text.Font;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Screen;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;

/** The application: its window, its settings, its end. */
public final class App extends Application {

    private static final String TODAY_SAID = "todaySaid";

    private static final List<String> FONTS = List.of(
            "IBMPlexSans_400Regular.ttf",
            "IBMPlexSans_500Medium.ttf",
            "IBMPlexSans_600SemiBold.ttf",
            "IBMPlexMono_400Regular.ttf");

    private @Nullable AppContext context;
    /** Smaller than this not everything has its place. */
    private static final Duration LOOKS_AT_MEMORY = Duration.ofSeconds(10);

    private static final double LEAST_WIDTH = 1024;

    private static final double LEAST_HEIGHT = 640;

    private @Nullable Shell shell;

    /** With this argument the window says when it has listed a folder, and closes. */
    static final String UNTIL_LISTING = "--until-listing";

    /** With this argument and a path the window begins with the line of that file, as file managers ask for it. */
    static final String PAST = "--past";

    private @Nullable Path asked;

    /** Pixels; made by the build. */
    private static final int[] ICONS = {16, 32, 48, 128};

    @Override
    public void start(Stage stage) throws IOException {
        UserSettings home = UserSettings.of(System.getenv());
        List<String> arguments = getParameters().getRaw();
        int past = arguments.indexOf(PAST);
        asked = past >= 0 && past + 1 < arguments.size() ? Path.of(arguments.get(past + 1)) : null;
        Shell shown = show(stage, home, Clock.system(ZoneId.systemDefault()));
        if (arguments.contains(UNTIL_LISTING)) {
            shown.files().listingProperty().addListener((o, a, listing) -> {
                if (!listing.top().isEmpty()) {
                    whenPainted(() -> {
                        System.out.println(
                                Words.of("desktop.listed", listing.top().size(), upMillis()));
                        stage.close();
                    });
                }
            });
        }
    }

    /** What is there is laid out and handed to be painted with one pulse; the next one comes when that was painted. */
    private static void whenPainted(Runnable then) {
        AnimationTimer pulses = new AnimationTimer() {
            private int seen;

            @Override
            public void handle(long now) {
                if (++seen == 3) {
                    stop();
                    then.run();
                }
            }
        };
        pulses.start();
    }

    /** Milliseconds since this process was started. */
    private static long upMillis() {
        Instant started = ProcessHandle.current().info().startInstant().orElse(Instant.now());
        return Duration.between(started, Instant.now()).toMillis();
    }

    /** Shows the window over these settings. */
    public Shell show(Stage stage, UserSettings home, Clock system) throws IOException {
        Words.use(home.language());
        // The toolkit has words of its own, on the buttons of its dialogs.
        Locale.setDefault(Locale.Category.DISPLAY, Words.locale());
        loadFonts();
        AppContext newDesk = new AppContext(home, system, Platform::runLater);
        Theme theme = new Theme(home);
        Shell newShell = new Shell(newDesk, theme, from -> askFolder(stage, from));
        context = newDesk;
        shell = newShell;
        Rectangle2D screen = Screen.getPrimary().getVisualBounds();
        boolean fits = screen.getWidth() >= LEAST_WIDTH && screen.getHeight() >= LEAST_HEIGHT;
        Parent root = fits ? newShell : scrolled(newShell);
        Scene scene = new Scene(
                root,
                Math.min(number(home, "width", 1280), screen.getWidth()),
                Math.min(number(home, "height", 800), screen.getHeight()));
        theme.apply(scene);
        newShell.setFileAsk(() -> askFile(stage));
        newShell.setFilesAsk(() -> askFiles(stage));
        newShell.setSaveAsk(name -> askSave(stage, name));
        newShell.setNoteAsk(words -> askWords(stage, words, ""));
        newShell.setNameAsk(name ->
                askWords(stage, Words.of("rename.ask", name), name).filter(n -> !n.isEmpty() && !n.equals(name)));
        newShell.setOpener(copy -> getHostServices().showDocument(copy.toUri().toString()));
        stage.setTitle(Words.of("desktop.title"));
        stage.setScene(scene);
        for (int size : ICONS) {
            String icon = "/org/mendedleaf/desktop/icons/mended-leaf-" + size + ".png";
            if (App.class.getResource(icon) != null) {
                stage.getIcons().add(new Image(icon));
            }
        }
        stage.setMinWidth(Math.min(LEAST_WIDTH, screen.getWidth()));
        stage.setMinHeight(Math.min(LEAST_HEIGHT, screen.getHeight()));
        if (home.remembered("maximized").equals("true")) {
            stage.setMaximized(true);
        }
        stage.setOnCloseRequest(e -> {
            if (newDesk.jobs().waiting() > 0 && !confirmEnd(stage)) {
                e.consume();
                return;
            }
            remember(stage, home, newShell);
        });
        stage.show();
        newShell.open(asked);
        newDesk.background().everyAside(LOOKS_AT_MEMORY, newDesk.memory()::giveBack);
        sayToday(home, newDesk);
        return newShell;
    }

    /** On a screen that is too small for all of it, as when everything is twice as large, it can be moved about; nothing is cut off. */
    static ScrollPane scrolled(Shell shell) {
        shell.setMinSize(LEAST_WIDTH, LEAST_HEIGHT);
        ScrollPane all = new ScrollPane(shell);
        all.setFitToWidth(true);
        all.setFitToHeight(true);
        all.setId("moved-about");
        return all;
    }

    /** Says once that the sample office has a today of its own. */
    private static void sayToday(UserSettings home, AppContext context) {
        if (home.hasOwnToday() && home.remembered(TODAY_SAID).isEmpty()) {
            context.tell(
                    Words.of("desktop.ownToday", Formats.full(context.clock().instant(), context.zone())));
            home.remember(TODAY_SAID, "true");
        }
    }

    static void loadFonts() throws IOException {
        for (String font : FONTS) {
            try (InputStream in = App.class.getResourceAsStream("/org/mendedleaf/desktop/fonts/" + font)) {
                if (in == null || Font.loadFont(in, 13) == null) {
                    throw new IOException("expected the font " + font + " inside the program");
                }
            }
        }
    }

    private static double number(UserSettings home, String key, double otherwise) {
        String text = home.remembered(key);
        return text.matches("\\d{3,5}") ? Double.parseDouble(text) : otherwise;
    }

    private static Optional<File> askFolder(Stage stage, File from) {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(Words.of("protect.chooseFolder"));
        if (from.isDirectory()) {
            chooser.setInitialDirectory(from);
        }
        return Optional.ofNullable(chooser.showDialog(stage));
    }

    private static Optional<String> askWords(Stage stage, String words, String first) {
        TextInputDialog dialog = new TextInputDialog(first);
        dialog.initOwner(stage);
        dialog.setTitle(Words.of("desktop.title"));
        dialog.setHeaderText(words);
        dialog.setGraphic(null);
        // What ends a name says what kind of file it is, and mostly stays.
        int end = first.lastIndexOf('.');
        Platform.runLater(() -> dialog.getEditor().selectRange(0, end > 0 ? end : first.length()));
        return dialog.showAndWait().map(String::strip);
    }

    private static Optional<File> askFile(Stage stage) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(Words.of("line.put"));
        return Optional.ofNullable(chooser.showOpenDialog(stage));
    }

    private static Optional<List<File>> askFiles(Stage stage) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(Words.of("listing.in.files"));
        return Optional.ofNullable(chooser.showOpenMultipleDialog(stage));
    }

    private static Optional<File> askSave(Stage stage, String name) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(Words.of("desktop.title"));
        chooser.setInitialFileName(name);
        return Optional.ofNullable(chooser.showSaveDialog(stage));
    }

    private static boolean confirmEnd(Stage stage) {
        ButtonType end = new ButtonType(Words.of("end.end"), ButtonBar.ButtonData.OTHER);
        ButtonType stay = new ButtonType(Words.of("end.stay"), ButtonBar.ButtonData.CANCEL_CLOSE);
        Alert alert = new Alert(Alert.AlertType.CONFIRMATION, Words.of("end.text"), stay, end);
        alert.initOwner(stage);
        alert.setHeaderText(Words.of("end.title"));
        return alert.showAndWait().filter(b -> b == end).isPresent();
    }

    private static void remember(Stage stage, UserSettings home, Shell shell) {
        home.remember("maximized", String.valueOf(stage.isMaximized()));
        if (!stage.isMaximized()) {
            home.remember("width", String.valueOf(Math.round(stage.getScene().getWidth())));
            home.remember("height", String.valueOf(Math.round(stage.getScene().getHeight())));
        }
        shell.remember(home);
        try {
            home.save();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(App.class).warn("the window is not remembered", e);
        }
    }

    @Override
    public void stop() {
        AppContext open = context;
        if (open != null) {
            open.close();
        }
    }

    /** The window's content; null before it is shown. */
    public @Nullable Shell shell() {
        return shell;
    }
}
