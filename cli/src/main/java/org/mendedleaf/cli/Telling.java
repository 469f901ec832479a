package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.intake.Announcement;
import org.mendedleaf.core.line.Card;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RemarkStore;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;

/** Writes messages that tell people of a new version. */
final class Telling {

    private final Base command;

    Telling(Base command) {
        this.command = command;
    }

    /** Tells these of the newest version of a file; returns the messages. Who may not see the file is told nothing. */
    List<Path> tell(Base.Located located, String path, List<String> names) throws IOException {
        Line line;
        Card card;
        List<Announcement.Person> people = new ArrayList<>();
        try (Reading reading = located.vault().read()) {
            line = reading.line(located.place(), path).orElseThrow();
            card = RemarkStore.of(reading).card(line.id());
            for (String name : names) {
                boolean sees = located.place().isOutside()
                        || PlaceRules.of(reading, located.place())
                                .rights(name, located.place())
                                .sees(card.visibility());
                if (sees) {
                    people.add(new Announcement.Person(name, command.home().address(name)));
                } else {
                    command.complain(Words.of("people.maySeeNot", name, line.name()));
                }
            }
        }
        Version v = line.newest().orElseThrow();
        List<Version> all = line.versions();
        String change =
                all.size() < 2 ? "" : Say.sizeChange(v.size() - all.get(1).size());
        return new Announcement(
                        new Announcement.Person(command.who(), command.home().address(command.who())),
                        line.name(),
                        located.place().where() + "/" + line.path(),
                        v.edition().label(),
                        v.saved(),
                        change,
                        v.note(),
                        card.category())
                .write(people, command.home().outbox(), command.now(), command.zone());
    }
}
