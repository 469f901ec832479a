package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.intake.Announcement;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Keeps the addresses of people, and says who works here. */
@Command(name = "people", description = "${bundle:cli.people}")
final class PeopleCommand extends Base {

    @Parameters(paramLabel = "NAME", arity = "0..1", descriptionKey = "cli.people.name")
    @Nullable
    String name;

    @Option(names = "--mail", paramLabel = "ADDRESS", descriptionKey = "cli.people.mail")
    @Nullable
    String mail;

    @Option(names = "--works-here", descriptionKey = "cli.people.worksHere")
    boolean worksHere;

    PeopleCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        String who = name;
        String address = mail;
        if (who == null && (address != null || worksHere)) {
            throw new IllegalArgumentException(Words.of("cli.people.needsName"));
        }
        if (who != null && address != null) {
            // Refuses what is no address.
            new Announcement.Person(who, address);
            settings().address(who, address);
        }
        if (who != null && worksHere) {
            settings().workAs(who);
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("worksHere", settings().who());
            map.put("person", settings().person());
            map.put("addresses", settings().addresses());
            map.put("outbox", settings().outbox().toString());
            printJson(map);
            return ExitCodes.DONE;
        }
        say("cli.people.here", settings().who());
        table(
                settings().addresses().entrySet().stream()
                        .map(e -> List.of("  " + e.getKey(), e.getValue()))
                        .toList(),
                "ll");
        say("cli.people.outbox", settings().outbox());
        return ExitCodes.DONE;
    }
}
