package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.Set;
import java.util.TreeSet;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/**
 * Names that are no text in UTF-8, as they are typed: a shell gives them by their bytes, which Java hands on with U+FFFD
 * for what is no text, or people type the escapes that are printed.
 */
final class TypedNames {

    private TypedNames() {}

    /**
     * The path that is meant. One that can be a name as it stands, is.
     *
     * @throws IllegalArgumentException when several names look like it
     */
    static String meant(Reading reading, Place place, String typed) throws IOException {
        if (typed.indexOf('\uFFFD') < 0 && !typed.contains("\\x")) {
            return typed;
        }
        String path = "";
        for (String name : RelativePath.names(typed)) {
            Set<String> there = names(reading, place, path);
            Set<String> found = new TreeSet<>();
            for (String each : there) {
                boolean same = RawNames.isRaw(each)
                        && (RawNames.readable(each).equals(name)
                                || Base.printable(each).equals(name));
                if (same) {
                    found.add(each);
                }
            }
            if (there.contains(name) || found.isEmpty()) {
                path = RelativePath.child(path, name);
            } else if (found.size() == 1) {
                path = RelativePath.child(path, found.iterator().next());
            } else {
                throw new IllegalArgumentException(Words.of(
                        "cli.severalNames",
                        name,
                        String.join(", ", found.stream().map(Base::printable).toList())));
            }
        }
        return path;
    }

    private static Set<String> names(Reading reading, Place place, String folder) throws IOException {
        Set<String> names = new TreeSet<>();
        reading.folders().listing(place, folder, Moment.FAR, true).forEach(e -> names.add(e.name()));
        if (place.isOutside()) {
            return names;
        }
        try (SafeFolder disk = SafeFolder.open(place.root(), folder)) {
            disk.list(new SafeFolder.Visitor() {
                @Override
                public void entry(String name, DiskEntry entry) {
                    names.add(name);
                }

                @Override
                public void failed(String name, IOException why) {
                    names.add(name);
                }
            });
        } catch (NoSuchFileException | NotDirectoryException e) {
            // What is gone is known to the catalogue.
            org.slf4j.LoggerFactory.getLogger(TypedNames.class).debug("{}", folder, e);
        }
        return names;
    }
}
