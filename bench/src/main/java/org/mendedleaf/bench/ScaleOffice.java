package org.mendedleaf.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.Op;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.StoredContent;

/**
 * A vault of very many files with a long history: places of 5,000 files in folders of 100, and 20 versions of each, every one
 * with a small content of its own. It is written through the session that captures write through, with its change log, in the
 * order of the tables.
 */
final class ScaleOffice {

    static final int VERSIONS = 20;
    static final int FILES_OF_PLACE = 5000;
    static final int FILES_OF_FOLDER = 100;
    static final Instant START = Instant.parse("2025-01-01T00:00:00Z");

    /** The hours over which the versions are spread. */
    static final int HOURS = 400 * VERSIONS;

    private static final String[] ENDINGS = {"txt", "csv", "md", "ods", "docx"};
    private static final String[] PEOPLE = {"Ines", "Ada", "Jonas", "Mira"};

    private final Path folder;
    private final int places;
    private long line;
    private long node;

    /** @param folder for the vault and the protected folders */
    ScaleOffice(Path folder, int files) {
        this.folder = folder;
        this.places = Math.max(1, files / FILES_OF_PLACE);
    }

    /** Makes it, and gives its vault. */
    Path make() throws IOException {
        Path vault = folder.resolve("vault");
        Random random = new Random(71);
        try (OpenVault open = OpenVault.openOrCreate(vault, "bench", Duration.ZERO);
                WriteSession session = open.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            Map<Place, List<Long>> all = new LinkedHashMap<>();
            for (int p = 0; p < places; p++) {
                Path root = Files.createDirectories(folder.resolve("place%03d".formatted(p)))
                        .toRealPath();
                Place place = new PlaceWriter(session)
                        .protect(root, root.getFileName().toString(), PlaceChange.to(Rhythm.BY_HAND), START);
                all.put(place, folders(session, place));
            }
            node = session.sql().number("SELECT max(id) FROM node");
            for (Map.Entry<Place, List<Long>> each : all.entrySet()) {
                fill(session, worker, each.getKey(), each.getValue(), random);
            }
        }
        return vault;
    }

    private static List<Long> folders(WriteSession session, Place place) throws IOException {
        LineWriter lines = new LineWriter(session);
        long top = lines.folder(place, "");
        List<Long> folders = new ArrayList<>();
        for (int f = 0; f < FILES_OF_PLACE / FILES_OF_FOLDER; f++) {
            folders.add(lines.folderAppears(place, top, "", folderName(f), facts(START), START));
        }
        return folders;
    }

    private void fill(WriteSession session, ContentWorker worker, Place place, List<Long> folders, Random random)
            throws IOException {
        Map<Long, Integer> hours = new HashMap<>();
        for (int f = 0; f < folders.size(); f++) {
            fill(session, worker, place, folders.get(f), random, hours);
            if (f % 10 == 9) {
                session.commit();
            }
        }
        for (Map.Entry<Long, Integer> hour : hours.entrySet()) {
            session.apply(Op.DENSITY, place.id(), hour.getKey(), hour.getValue());
        }
        session.commit();
    }

    static String folderName(int folder) {
        return "folder%02d".formatted(folder);
    }

    static String fileName(int file) {
        return "file%02d.%s".formatted(file, ENDINGS[file % ENDINGS.length]);
    }

    private static FileAttributes facts(Instant at) {
        return new FileAttributes(EntryKind.FILE, 0, at.toEpochMilli() * 1_000_000, 0b110_100_100, "bench");
    }

    private record Held(long to, long node, long from, int number, long size) {}

    private void fill(
            WriteSession session, ContentWorker worker, Place place, long in, Random random, Map<Long, Integer> hours)
            throws IOException {
        Held[] spans = new Held[FILES_OF_FOLDER * VERSIONS];
        int span = 0;
        for (int i = 0; i < FILES_OF_FOLDER; i++) {
            line++;
            node++;
            session.apply(Op.NODE, node, in, fileName(i), line, 0);
            session.apply(Op.LINE, line, place.id(), node);
            long from = Moment.micros(START);
            for (int v = 1; v <= VERSIONS; v++) {
                StoredContent content = content(worker, v, random);
                long to = v == VERSIONS
                        ? Moment.OPEN
                        : Moment.micros(START.plus(Duration.ofHours(v * 400L + random.nextInt(399))))
                                + random.nextInt(1_000_000_000);
                session.apply(
                        Op.VERSION,
                        line,
                        v,
                        node,
                        from,
                        from + 1_000_000,
                        PEOPLE[(int) (line % PEOPLE.length)],
                        (v == 1 ? Origin.FOUND : Origin.SAVED).code(),
                        0,
                        EntryKind.FILE.code(),
                        content.length(),
                        from * 1000,
                        0b110_100_100,
                        content.digest().bytes(),
                        content.sha256() == null ? null : content.sha256().bytes(),
                        content.recipe().encode(),
                        "");
                session.apply(Op.LINE_GROWS, v, content.length(), node, line);
                if (v > 1) {
                    hours.merge(from / 3_600_000_000L, 1, Integer::sum);
                }
                spans[span++] = new Held(to, node, from, v, content.length());
                from = to;
            }
        }
        Arrays.sort(
                spans, (a, b) -> a.to() == b.to() ? Long.compare(a.node(), b.node()) : Long.compare(a.to(), b.to()));
        for (Held s : spans) {
            session.apply(
                    Op.SPAN,
                    in,
                    s.to(),
                    s.node(),
                    s.from(),
                    s.number(),
                    EntryKind.FILE.code(),
                    s.size(),
                    s.from() * 1000,
                    0b110_100_100);
        }
    }

    private StoredContent content(ContentWorker worker, int version, Random random) throws IOException {
        String said = "Line %d, version %d, %x%n".formatted(line, version, random.nextLong());
        byte[] text = said.getBytes(StandardCharsets.UTF_8);
        return worker.store(Channels.newChannel(new ByteArrayInputStream(text)), n -> {});
    }
}
