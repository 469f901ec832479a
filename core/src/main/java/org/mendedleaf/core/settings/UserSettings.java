package org.mendedleaf.core.settings;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Connections;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import org.slf4j.LoggerFactory;

/**
 * The user's settings: which vaults there are, what they are called, and what the screens remember. One file, {@code
 * settings.json}, in {@code MENDED_LEAF_HOME} or the usual folder for settings.
 */
public final class UserSettings implements Connections {

    private static final String LANGUAGE = "language";
    private static final String CELLS = "csvCells";
    private static final String SCALE = "scale";

    /** How large everything in the window can be, percent. */
    public static final List<Integer> SCALES = List.of(100, 125, 150, 175, 200);

    private static final String AS_IS = "as-is";

    private final Path folder;
    private final SettingsFile file;
    private final Keyring keyring;

    /** As they are here. */
    private volatile ObjectNode settings;

    /** As they were in the file when this program read or wrote them last. */
    private ObjectNode stored;

    private UserSettings(Path folder, Keyring keyring) throws IOException {
        this.folder = folder;
        this.keyring = keyring;
        this.file = new SettingsFile(folder);
        this.settings = file.read();
        this.stored = settings.deepCopy();
    }

    /** Where the settings are, by the environment. */
    public static Path defaultFolder(Map<String, String> environment) {
        String own = environment.getOrDefault("MENDED_LEAF_HOME", "");
        if (!own.isEmpty()) {
            return Path.of(own).toAbsolutePath();
        }
        return UserFolders.settings(environment).resolve("mended-leaf").toAbsolutePath();
    }

    /** Reads the settings in this folder; an empty folder gives the defaults. */
    public static UserSettings open(Path folder) throws IOException {
        return new UserSettings(folder, Keyring.NONE);
    }

    /** The same, with a keyring for what is secret. */
    public static UserSettings open(Path folder, Keyring keyring) throws IOException {
        return new UserSettings(folder, keyring);
    }

    /** The settings of the user whose environment this is, with the keyring of the platform where they are in their usual place. */
    public static UserSettings of(Map<String, String> environment) throws IOException {
        return open(defaultFolder(environment), Keyring.of(environment));
    }

    /** Where the settings are. */
    public Path folder() {
        return folder;
    }

    /** The vaults that this user has, in the order in which they came. */
    public List<Path> vaults() {
        List<Path> vaults = new ArrayList<>();
        settings.path("vaults").forEach(v -> vaults.add(Path.of(v.asText())));
        return vaults;
    }

    /** Adds a vault, unless it is known. */
    public synchronized void addVault(Path vault) throws IOException {
        if (!vaults().contains(vault)) {
            ArrayNode list = settings.withArray("vaults");
            list.add(vault.toString());
            save();
        }
    }

    /** The systems that this user is connected to, in the order in which they came. */
    @Override
    public List<Connection> connections() {
        List<Connection> all = new ArrayList<>();
        for (JsonNode c : settings.path("systems")) {
            all.add(new Connection(
                    c.path("name").asText(),
                    SystemKind.parse(c.path("kind").asText()),
                    c.path("address").asText(),
                    c.path("token").asText(),
                    Path.of(c.path("vault").asText()),
                    c.path("certificate").asText(""),
                    c.path("keyring").asText("")));
        }
        return all;
    }

    /** The connection of this name. */
    public Optional<Connection> connection(String name) {
        return connections().stream().filter(c -> c.name().equals(name)).findFirst();
    }

    /** Adds a connection, or changes the one of the same name. */
    @Override
    public synchronized void connect(Connection connection) throws IOException {
        disconnect(connection.name());
        // Another account for each time it is connected: programs that go on see that the token is another one.
        String account = connection.name() + " (" + UUID.randomUUID() + ")";
        boolean kept = !connection.token().isEmpty() && keyring.keep(account, connection.token());
        settings.withArray("systems")
                .addObject()
                .put("name", connection.name())
                .put("kind", connection.kind().text())
                .put("address", connection.address())
                .put("token", kept ? "" : connection.token())
                .put("vault", connection.vault().toString())
                .put("certificate", connection.certificate())
                .put("keyring", kept ? account : "");
        save();
    }

    @Override
    public Endpoint endpoint(Connection connection) throws IOException {
        if (connection.keyring().isEmpty()) {
            return connection.endpoint();
        }
        Optional<String> token;
        try {
            token = keyring.get(connection.keyring());
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            LoggerFactory.getLogger(UserSettings.class).debug("the keyring does not answer", e);
            token = Optional.empty();
        }
        return connection
                .endpoint()
                .with(token.orElseThrow(
                        () -> new SystemException.Refused(Words.of("system.noKeyring", connection.name()))));
    }

    /** Forgets a connection; what the vault knows of it stays. Returns whether there was one. */
    public synchronized boolean disconnect(String name) throws IOException {
        boolean found = false;
        List<String> accounts = new ArrayList<>();
        ArrayNode list = settings.withArray("systems");
        for (int i = list.size() - 1; i >= 0; i--) {
            if (list.get(i).path("name").asText().equals(name)) {
                accounts.add(list.get(i).path("keyring").asText(""));
                list.remove(i);
                found = true;
            }
        }
        save();
        accounts.stream().filter(a -> !a.isEmpty()).forEach(keyring::forget);
        return found;
    }

    /** What who works here is called at the points they make: the person of this computer, unless chosen otherwise. */
    @Override
    public String who() {
        String as = settings.path("workingAs").asText("");
        return as.isEmpty() ? person() : as;
    }

    /** What the person of this computer is called. */
    public String person() {
        String chosen = settings.path("who").asText("");
        return chosen.isEmpty() ? System.getProperty("user.name") : chosen;
    }

    /** Chooses who works here from now on; the empty name is the person of this computer. */
    public synchronized void workAs(String name) throws IOException {
        settings.put("workingAs", name.equals(person()) ? "" : name);
        save();
    }

    /** The addresses of people that are known, by name. */
    public Map<String, String> addresses() {
        Map<String, String> all = new TreeMap<>();
        settings.path("people")
                .properties()
                .forEach(e -> all.put(e.getKey(), e.getValue().asText()));
        return all;
    }

    /** The address of somebody; empty when none is known. */
    public String address(String name) {
        return addresses().getOrDefault(name, "");
    }

    /** Remembers the address of somebody; the empty one forgets it. */
    public synchronized void address(String name, String address) throws IOException {
        ObjectNode people = settings.withObject("/people");
        if (address.isEmpty()) {
            people.remove(name);
        } else {
            people.put(name, address);
        }
        save();
    }

    /** Where messages for people are written. */
    public Path outbox() {
        String chosen = settings.path("outbox").asText("");
        return chosen.isEmpty() ? folder.resolve("outbox") : Path.of(chosen);
    }

    /** Chooses where messages are written. */
    public synchronized void outbox(Path to) throws IOException {
        settings.put("outbox", to.toString());
        save();
    }

    /** The folders in which revisions arrive: those that were chosen, else that of downloads. */
    public List<Path> arrivals() {
        List<Path> chosen = paths("arrivals");
        return chosen.isEmpty() ? List.of(UserFolders.named(System.getenv(), "DOWNLOAD", "Downloads")) : chosen;
    }

    /** Chooses the folders in which revisions arrive; none of them is the standard again. */
    public synchronized void arrivals(List<Path> folders) throws IOException {
        paths("arrivals", folders);
    }

    /** Folders in which programs leave safety copies, beside those of the files themselves. */
    public List<Path> strayFolders() {
        return paths("strayFolders");
    }

    /** Chooses the folders in which programs leave safety copies. */
    public synchronized void strayFolders(List<Path> folders) throws IOException {
        paths("strayFolders", folders);
    }

    private List<Path> paths(String key) {
        List<Path> all = new ArrayList<>();
        settings.path(key).forEach(p -> all.add(Path.of(p.asText())));
        return all;
    }

    private void paths(String key, List<Path> folders) throws IOException {
        ArrayNode list = settings.putArray(key);
        folders.forEach(f -> list.add(f.toString()));
        save();
    }

    /** Chooses what the user is called. */
    public synchronized void who(String name) throws IOException {
        settings.put("who", name);
        save();
    }

    /**
     * The clock by which this home lives: the system's, unless the sample office has set another moment for its "today";
     * then time goes on from there.
     */
    public Clock clock(Clock system) {
        String today = settings.path("today").asText("");
        String zone = settings.path("zone").asText("");
        String since = settings.path("todaySince").asText("");
        try {
            Clock zoned = zone.isEmpty() ? system : system.withZone(ZoneId.of(zone));
            if (today.isEmpty() || since.isEmpty()) {
                return zoned;
            }
            return Clock.offset(zoned, Duration.between(Instant.parse(since), Instant.parse(today)));
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Words.of("home.damaged", folder, e.getMessage()), e);
        }
    }

    /** Lets this home live at another moment: for the sample office. */
    public synchronized void setToday(Instant today, Instant system, ZoneId zone) throws IOException {
        settings.put("today", today.toString());
        settings.put("todaySince", system.toString());
        settings.put("zone", zone.getId());
        save();
    }

    /** Whether this home lives at another moment than the system's. */
    public boolean hasOwnToday() {
        return !chosen("today").isEmpty();
    }

    /** What somebody chose under this key; empty when nothing. */
    public String chosen(String key) {
        return settings.path(key).asText("");
    }

    /** Chooses something under a key. It is written by {@link #save}. */
    public synchronized void choose(String key, String value) {
        settings.put(key, value);
    }

    /** The tag of the language in which words are said, such as {@code de}; null when it is that of the system. */
    public @Nullable String language() {
        String tag = chosen(LANGUAGE);
        return tag.isEmpty() ? null : tag;
    }

    /** Says all words in this language, or with null in that of the system, and remembers it. */
    public synchronized void language(@Nullable String tag) throws IOException {
        if (tag == null) {
            settings.remove(LANGUAGE);
        } else {
            choose(LANGUAGE, tag);
        }
        save();
    }

    /** How tables for other programs write what a spreadsheet would compute. */
    public CsvTable.Cells cells() {
        return chosen(CELLS).equals(AS_IS) ? CsvTable.Cells.AS_IS : CsvTable.Cells.TEXT;
    }

    /** Chooses how tables for other programs are written, and remembers it. */
    public synchronized void cells(CsvTable.Cells cells) throws IOException {
        if (cells == CsvTable.Cells.AS_IS) {
            choose(CELLS, AS_IS);
        } else {
            settings.remove(CELLS);
        }
        save();
    }

    /** How large everything in the window is, percent of its usual size; 0 for as the system says. */
    public int scale() {
        int percent = settings.path(SCALE).asInt(0);
        return SCALES.contains(percent) ? percent : 0;
    }

    /**
     * Chooses how large everything in the window is.
     *
     * @param percent one of {@link #SCALES}, or 0 for as the system says
     */
    public synchronized void scale(int percent) throws IOException {
        if (percent != 0 && !SCALES.contains(percent)) {
            throw new IllegalArgumentException("expected one of " + SCALES + ", got " + percent);
        }
        if (percent == 0) {
            settings.remove(SCALE);
        } else {
            settings.put(SCALE, percent);
        }
        save();
    }

    /** What a screen remembers under this key; empty when nothing. */
    public String remembered(String key) {
        return settings.path("screen").path(key).asText("");
    }

    /** Remembers something for a screen. It is written by {@link #save}. */
    public synchronized void remember(String key, String value) {
        settings.withObject("/screen").put(key, value);
    }

    /**
     * Writes the settings, whole or not at all; nobody else on this computer may read them. What other programs wrote
     * meanwhile stays, and is known here from now on.
     *
     * @throws IOException with a message for the user, also when what stands there cannot be read any more: then it stays
     */
    public synchronized void save() throws IOException {
        settings = file.write(stored, settings);
        stored = settings.deepCopy();
    }
}
