package org.mendedleaf.core.intake;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Tells people of the newest version of a file.
 *
 * @param who tells it
 * @param address of somebody by their name; the empty text when none is known
 * @param outbox where messages are written
 */
public record Announcer(
        OpenVault vault, Place place, Clock clock, String who, UnaryOperator<String> address, Path outbox) {

    /**
     * What became of it.
     *
     * @param messages that were written
     * @param left who was told nothing, and why, as a message
     */
    public record Told(List<Path> messages, List<String> left) {
        /** Copies the lists. */
        public Told {
            messages = List.copyOf(messages);
            left = List.copyOf(left);
        }
    }

    /**
     * Tells these of the newest version at a path. Who may not see the file is told nothing.
     *
     * @throws IllegalArgumentException with a message for the user, when somebody has no address; then nobody is told
     */
    public Told tell(String path, List<String> names) throws IOException {
        Line line;
        FileProperties card;
        List<Announcement.Person> people = new ArrayList<>();
        List<String> left = new ArrayList<>();
        try (Reading reading = vault.read()) {
            line = reading.line(place, path).orElseThrow();
            card = RemarkStore.of(reading).card(line.id());
            PlaceRules rules = PlaceRules.of(reading, place);
            for (String name : names) {
                if (place.isOutside() || rules.rights(name, place).sees(card.visibility())) {
                    people.add(new Announcement.Person(name, address.apply(name)));
                } else {
                    left.add(Words.of("people.maySeeNot", name, line.name()));
                }
            }
        }
        Version v = line.newest().orElseThrow();
        List<Version> all = line.versions();
        String change =
                all.size() < 2 ? "" : Formats.sizeChange(v.size() - all.get(1).size());
        List<Path> messages = new Announcement(
                        new Announcement.Person(who, address.apply(who)),
                        line.name(),
                        place.where() + "/" + line.path(),
                        v.label(),
                        v.saved(),
                        change,
                        v.note(),
                        card.category())
                .write(people, outbox, clock.instant(), clock.getZone());
        return new Told(messages, left);
    }
}
