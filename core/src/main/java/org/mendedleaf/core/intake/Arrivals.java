package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.capture.Exclusions;
import org.mendedleaf.core.disk.RelativePath;

/** The files that came last into some folders, such as that of downloads, and by mail. */
public final class Arrivals {

    /** What has so much in common with a file is likely a revision of it, percent. */
    private static final int ALIKE = 90;

    /** So many files are looked into, none of them larger than this. */
    private static final int JUDGED_MOST = 40;

    private static final long JUDGED_BYTES = 32_000_000;

    private Arrivals() {}

    /**
     * A file that came.
     *
     * @param file where it is; of one that came by mail, the file with the message
     * @param size bytes
     * @param came when it came or was last changed, whichever is later; of one that came by mail, when that was sent
     * @param likely whether it is likely a revision of the file that was asked for
     * @param mail with which it came
     */
    public record Arrival(Path file, long size, Instant came, boolean likely, Optional<Mail> mail) {

        /** One that came as a file. */
        public Arrival(Path file, long size, Instant came, boolean likely) {
            this(file, size, came, likely, Optional.empty());
        }

        /** What the file is called where it arrived. */
        public String name() {
            return mail.map(Mail::name).orElseGet(() -> String.valueOf(file.getFileName()));
        }

        /** A file with its content: itself, or, of one that came by mail, a temporary file, which may take a moment. */
        public Path content() throws IOException {
            return mail.isPresent() ? MailFolder.write(mail.get(), came) : file;
        }

        private Arrival likely(boolean is) {
            return new Arrival(file, size, came, is, mail);
        }
    }

    /**
     * A message with a file in it.
     *
     * @param name of the file
     * @param from name of who sent it, or the address; empty where it does not say
     * @param address of who sent it; empty where it does not say
     * @param subject of it, on one line
     * @param index of the file among its parts
     */
    public record Mail(
            String name, String from, String address, String subject, MessageFiles.Message message, int index) {

        /**
         * Who sent it, as people are called here: by the name under which the address is known, or else as the message says.
         *
         * @param addresses of people by their names
         */
        public String author(Map<String, String> addresses) {
            return addresses.entrySet().stream()
                    .filter(e -> !address.isEmpty() && e.getValue().equalsIgnoreCase(address))
                    .map(Map.Entry::getKey)
                    .findFirst()
                    .orElse(from);
        }
    }

    /**
     * The newest files of some folders, not below them: likely ones for a file first, then newest first. Folders that are
     * not there hold none; unfinished downloads and links are none. Of messages that are kept there (a Maildir, {@code .eml}, mbox)
     * the files in them came.
     *
     * @param folders of them, one may be a file with many messages
     * @param wanted name of the file that a revision is looked for; empty for none
     * @param most at most so many
     * @param now what came after it tells nothing: a clock was wrong
     */
    public static List<Arrival> look(List<Path> folders, String wanted, int most, Instant now) {
        Exclusions exclusions = new Exclusions(List.of());
        NameStem stem = wanted.isEmpty() ? null : NameStem.of(wanted);
        List<Arrival> found = new ArrayList<>();
        for (Path folder : folders) {
            try {
                for (Arrival a : MailFolder.look(folder, now)) {
                    found.add(a.likely(stem != null && NameStem.of(a.name()).sameFile(stem)));
                }
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(Arrivals.class).debug("{} has no messages", folder, e);
            }
            if (Files.isRegularFile(folder)) {
                continue;
            }
            try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
                for (Path file : all) {
                    String name = String.valueOf(file.getFileName());
                    BasicFileAttributes a =
                            Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
                    boolean hidden = name.startsWith(".");
                    if (a.isRegularFile()
                            && !hidden
                            && !MessageFiles.isMail(file, name)
                            && exclusions.find("", name, false).isEmpty()) {
                        boolean likely = stem != null && NameStem.of(name).sameFile(stem);
                        found.add(new Arrival(file, a.size(), came(file, a, now), likely));
                    }
                }
            } catch (IOException | java.nio.file.DirectoryIteratorException e) {
                // A folder that is away, or a file that went while we looked: nothing came from there.
                org.slf4j.LoggerFactory.getLogger(Arrivals.class).debug("{} cannot be looked at", folder, e);
            }
        }
        return sorted(found, most);
    }

    private static List<Arrival> sorted(List<Arrival> found, int most) {
        return found.stream()
                .sorted(Comparator.comparing((Arrival a) -> !a.likely())
                        .thenComparing(Comparator.comparing(Arrival::came).reversed())
                        .thenComparing(Arrival::file)
                        .thenComparing(Arrival::name))
                .limit(most)
                .toList();
    }

    /**
     * The same for a file of a place, by what is in the files that came: likely is what is equal to a version of it or has
     * nearly all in common with the newest one, whatever its name, and what has its name and is not most likely the wrong file.
     *
     * @param path of the file in the place
     */
    public static List<Arrival> look(List<Path> folders, Evidence evidence, String path, int most, Instant now) {
        List<Arrival> judged = new ArrayList<>();
        for (Arrival a : look(folders, RelativePath.name(path), JUDGED_MOST, now)) {
            judged.add(a.size() > JUDGED_BYTES ? a : a.likely(isLikely(a, evidence, path)));
        }
        return sorted(judged, most);
    }

    private static boolean isLikely(Arrival a, Evidence evidence, String path) {
        try {
            Judgement judgement = evidence.judge(a.content(), path);
            return judgement.identicalTo() > 0
                    || judgement.shared() >= ALIKE
                    || (a.likely() && judgement.outcome() != Judgement.Outcome.UNLIKELY);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Arrivals.class).debug("{} cannot be judged", a.file(), e);
            return a.likely();
        }
    }

    /** A download may keep the time of its origin; when it came into the folder is when its facts changed last. */
    private static Instant came(Path file, BasicFileAttributes a, Instant now) {
        Instant modified = a.lastModifiedTime().toInstant();
        try {
            Map<String, Object> more = Files.readAttributes(file, "unix:ctime", LinkOption.NOFOLLOW_LINKS);
            if (more.get("ctime") instanceof java.nio.file.attribute.FileTime changed) {
                Instant at = changed.toInstant();
                return at.isAfter(modified) && !at.isAfter(now) ? at : modified;
            }
        } catch (IOException | UnsupportedOperationException | IllegalArgumentException e) {
            org.slf4j.LoggerFactory.getLogger(Arrivals.class).trace("no more than its modified time", e);
        }
        return modified;
    }
}
