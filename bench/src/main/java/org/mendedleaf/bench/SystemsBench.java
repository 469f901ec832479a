package org.mendedleaf.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.standins.ObjectStore;

/**
 * Looks at a container of 10,000 objects, and puts 1,000 files in, without and with 20 ms of delay in each answer. The
 * baselines are the same requests made one after another by a bare HTTP client: the pages of the listing read and thrown
 * away, and one upload a file.
 */
final class SystemsBench {

    private static final int ROUNDS = 3;
    private static final int FILE_BYTES = 20_000;

    private final Path folder;
    private final int objects;
    private final int files;
    private final Table table;

    SystemsBench(Path folder, double scale, Table table) {
        this.folder = folder;
        this.objects = (int) (10_000 * scale);
        this.files = (int) (1_000 * scale);
        this.table = table;
    }

    void run() throws Exception {
        Path outside = Files.createDirectories(folder.resolve("store"));
        try (ObjectStore store = new ObjectStore(outside, "bench");
                OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            UserSettings home = UserSettings.open(folder.resolve("home"));
            Clock clock = Clock.systemUTC();
            home.connect(new Connection(
                    "S",
                    SystemKind.OBJECT_STORE,
                    store.address(),
                    store.token("bench"),
                    vault.folder().root()));
            SystemRegistry registry = new SystemRegistry(home, Systems.OPENER, clock, Retry.DEFAULT);
            SystemConnector connecting = new SystemConnector(home, registry, clock);
            listing(store, vault, home, registry, connecting, clock);
            for (int delay : new int[] {0, 20}) {
                transfers(store, vault, home, registry, connecting, clock, delay);
            }
        }
    }

    private static Place place(SystemConnector c, UserSettings home, OpenVault vault, String name) throws IOException {
        return c.create(home.connection("S").orElseThrow(), name, SystemKind.OBJECT_STORE.standardSettings(), vault);
    }

    private static double seconds(Timed timed) throws Exception {
        long start = System.nanoTime();
        timed.run();
        return (System.nanoTime() - start) / 1e9;
    }

    private interface Timed {
        void run() throws Exception;
    }

    private void listing(
            ObjectStore store,
            OpenVault vault,
            UserSettings home,
            SystemRegistry registry,
            SystemConnector connecting,
            Clock clock)
            throws Exception {
        Place place = place(connecting, home, vault, "listing");
        HttpClient client = HttpClient.newHttpClient();
        for (int i = 0; i < objects; i++) {
            put(client, store, "listing", "folder " + i % 100 + "/object " + i, new byte[] {(byte) i, (byte) (i >> 8)});
        }
        double bare = 0;
        for (int i = 0; i < ROUNDS; i++) {
            bare = seconds(() -> pages(client, store));
        }
        Mirror mirror = new Mirror(vault, place, registry.system(place), clock);
        double first = seconds(() -> mirror.run(Progress.NONE));
        double[] again = new double[ROUNDS];
        double[] theirs = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            theirs[i] = seconds(() -> pages(client, store));
            again[i] = seconds(() -> mirror.run(Progress.NONE));
        }
        table.ratio("first look at " + objects + " objects", "their listing, read bare", first, bare, "s", 0);
        table.ratio(
                "look at " + objects + " unchanged objects",
                "their listing, read bare",
                Table.median(again),
                Table.median(theirs),
                "s",
                0);
    }

    private static void pages(HttpClient client, ObjectStore store) throws Exception {
        String after = "";
        do {
            String query = java.net.URLEncoder.encode(after, StandardCharsets.UTF_8);
            HttpRequest request = HttpRequest.newBuilder(
                            URI.create(store.address() + "/containers/listing/versions?limit=2000&after=" + query))
                    .header("Authorization", "Bearer " + store.token("bench"))
                    .build();
            String body =
                    client.send(request, HttpResponse.BodyHandlers.ofString()).body();
            Matcher next =
                    Pattern.compile("\"next\":\"((?:[^\"\\\\]|\\\\.)*)\"").matcher(body);
            after = next.find() ? next.group(1).replace("\\u0001", "\u0001") : "";
        } while (!after.isEmpty());
    }

    private static void put(HttpClient client, ObjectStore store, String container, String key, byte[] bytes)
            throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(
                        store.address() + "/containers/" + container + "/objects/" + key.replace(" ", "%20")))
                .header("Authorization", "Bearer " + store.token("bench"))
                .PUT(HttpRequest.BodyPublishers.ofByteArray(bytes))
                .build();
        int status =
                client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
        if (status != 200) {
            throw new IOException("expected 200, got " + status);
        }
    }

    private void transfers(
            ObjectStore store,
            OpenVault vault,
            UserSettings home,
            SystemRegistry registry,
            SystemConnector connecting,
            Clock clock,
            int delay)
            throws Exception {
        Path data = Files.createDirectories(folder.resolve("data"));
        List<Revision> revisions = new ArrayList<>();
        java.util.Random random = new java.util.Random(7);
        for (int i = 0; i < files; i++) {
            byte[] bytes = new byte[FILE_BYTES];
            random.nextBytes(bytes);
            Path file = Files.write(data.resolve("f" + i), bytes);
            revisions.add(new Revision(file, "d" + i % 20 + "/f" + i, ""));
        }
        double[] ours = new double[ROUNDS];
        double[] theirs = new double[ROUNDS];
        store.faults().delay(delay);
        for (int i = 0; i < ROUNDS; i++) {
            String bare = "bare " + delay + " " + i;
            place(connecting, home, vault, bare);
            HttpClient client = HttpClient.newHttpClient();
            theirs[i] = seconds(() -> {
                for (Revision r : revisions) {
                    try (InputStream in = Files.newInputStream(r.file())) {
                        put(client, store, bare.replace(" ", "%20"), r.path(), in.readAllBytes());
                    }
                }
            });
            Place place = place(connecting, home, vault, "ours " + delay + " " + i);
            OutsideWork work = new OutsideWork(vault, place, registry, clock, "bench");
            ours[i] = seconds(() -> {
                PutResult result = work.put(revisions, Progress.NONE);
                if (!result.failed().isEmpty()) {
                    throw new IOException("failed: " + result.failed());
                }
            });
        }
        store.faults().clear();
        table.ratio(
                files + " files put in, " + delay + " ms delay, with looks before and after",
                "one bare upload after another",
                Table.median(ours),
                Table.median(theirs),
                "s",
                0);
    }
}
