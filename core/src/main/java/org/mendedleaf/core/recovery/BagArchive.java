package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Writes versions into a new BagIt bag (RFC 8493) with SHA-256 manifests for its payload and its tag files. It is made
 * beside its name and gets it at the end; cancelled or killed before that, nothing is left of it. A bag holds files, and
 * neither links nor empty folders.
 */
public final class BagArchive implements Destination {

    private final OpenVault vault;
    private final Path folder;
    private final Clock clock;

    /** A folder that is not there yet, or is empty. */
    public BagArchive(OpenVault vault, Path folder, Clock clock) {
        this.vault = vault;
        this.folder = folder;
        this.clock = clock;
    }

    @Override
    public RestorePlan plan(RestoreRequest request, Progress progress) throws IOException {
        RestorePlan plan = RestorePlanner.plan(
                request, TargetView.empty(vault), TargetFacts.of(folder).inBag(), progress);
        return isTaken()
                ? new RestorePlan(plan.items(), plan.preflight().stoppedBy(Words.of("archive.exists", folder)))
                : plan;
    }

    private boolean isTaken() throws IOException {
        if (!Files.exists(folder)) {
            return false;
        }
        if (!Files.isDirectory(folder)) {
            return true;
        }
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.findAny().isPresent();
        }
    }

    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        Optional<RestorePlan> planned = planNow(request, progress);
        if (planned.isEmpty()) {
            return RestoreResult.CANCELLED;
        }
        RestorePlan plan = planned.get();
        if (!plan.preflight().isGood()) {
            throw new IOException(plan.preflight().stops());
        }
        Path parent = folder.toAbsolutePath().getParent();
        Path above = Files.createDirectories(parent == null ? folder.toAbsolutePath() : parent);
        Path beside = above.resolve(SafeFolder.ownName());
        try {
            Access.OWNER.createFolders(beside);
            Path data = Files.createDirectory(beside.resolve("data"));
            List<RestoreItem> requested = plan.items().stream()
                    .filter(RestorePlan.Item::writes)
                    .map(i -> new RestoreItem(i.version(), i.target()))
                    .toList();
            RestoreResult written = new FolderRestore(vault, data).restore(requested, Collision.SKIP, progress);
            if (written.cancelled() || progress.isCancelled()) {
                return RestoreResult.CANCELLED;
            }
            Map<RestorePlan.Item, String> failed = failed(plan, written);
            tags(beside, data);
            Files.deleteIfExists(folder);
            Files.move(beside, folder);
            Durable.forceFolder(above);
            return ZipArchive.result(plan, failed);
        } finally {
            delete(beside);
        }
    }

    private static Map<RestorePlan.Item, String> failed(RestorePlan plan, RestoreResult written) {
        Map<String, String> why = new TreeMap<>();
        for (RestoreResult.Item i : written.items()) {
            if (i.outcome() == RestoreResult.Outcome.FAILED) {
                why.put(i.plan().target(), i.why());
            }
        }
        Map<RestorePlan.Item, String> failed = new java.util.HashMap<>();
        for (RestorePlan.Item i : plan.items()) {
            String reason = why.get(i.target());
            if (i.writes() && reason != null) {
                failed.put(i, reason);
            }
        }
        return failed;
    }

    private void tags(Path bag, Path data) throws IOException {
        Map<String, Path> payload = new TreeMap<>();
        try (Stream<Path> all = Files.walk(data)) {
            all.filter(Files::isRegularFile)
                    .forEach(p ->
                            payload.put("data/" + data.relativize(p).toString().replace('\\', '/'), p));
        }
        long bytes = 0;
        for (Path p : payload.values()) {
            bytes += Files.size(p);
        }
        write(bag, "bagit.txt", "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n");
        write(
                bag,
                "bag-info.txt",
                "Bag-Software-Agent: Mended Leaf\nBagging-Date: " + LocalDate.now(clock) + "\nPayload-Oxum: " + bytes
                        + "." + payload.size() + "\n");
        write(bag, "manifest-sha256.txt", manifest(payload));
        Map<String, Path> tags = new TreeMap<>();
        for (String name : List.of("bagit.txt", "bag-info.txt", "manifest-sha256.txt")) {
            tags.put(name, bag.resolve(name));
        }
        write(bag, "tagmanifest-sha256.txt", manifest(tags));
        Durable.forceFolder(bag);
    }

    private static String manifest(Map<String, Path> files) throws IOException {
        StringBuilder out = new StringBuilder();
        for (Map.Entry<String, Path> e : files.entrySet()) {
            // Section 2.1.3: what would break a line is percent-encoded, and the percent sign with it.
            String name = e.getKey().replace("%", "%25").replace("\n", "%0A").replace("\r", "%0D");
            out.append(sha256(e.getValue())).append("  ").append(name).append('\n');
        }
        return out.toString();
    }

    private static String sha256(Path file) throws IOException {
        MessageDigest sha = Digest.sha256();
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), sha)) {
            in.transferTo(OutputStream.nullOutputStream());
        }
        return Digest.of(sha.digest()).hex();
    }

    private static void write(Path bag, String name, String text) throws IOException {
        Path file = bag.resolve(name);
        try (java.nio.channels.FileChannel out = java.nio.channels.FileChannel.open(
                file, java.nio.file.StandardOpenOption.CREATE_NEW, java.nio.file.StandardOpenOption.WRITE)) {
            Durable.write(out, java.nio.ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
            out.force(true);
        }
    }

    private static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.delete(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path each, @org.jspecify.annotations.Nullable IOException failed)
                    throws IOException {
                Files.delete(each);
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
