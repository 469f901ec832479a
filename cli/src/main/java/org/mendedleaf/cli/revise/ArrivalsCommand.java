package org.mendedleaf.cli.revise;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.intake.Arrivals;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Shows what came last into the folder of downloads, and chooses other folders for it. */
@Command(name = "arrivals", description = "${bundle:cli.arrivals}")
public final class ArrivalsCommand extends Base {

    private static final int MOST = 20;

    @Option(names = "--for", paramLabel = "FILE", descriptionKey = "cli.arrivals.for")
    @Nullable
    Path wanted;

    @Option(names = "--folders", paramLabel = "DIR", arity = "0..*", descriptionKey = "cli.arrivals.folders")
    @Nullable
    List<Path> folders;

    public ArrivalsCommand(Surroundings surroundings) {
        super(surroundings);
    }

    /** Of a file that is kept, what came is judged by its content; of any other by its name. */
    private List<Arrivals.Arrival> arrivals() throws IOException {
        Path file = wanted;
        if (file != null) {
            try {
                Located located = locate(file);
                return Arrivals.look(settings().arrivals(), evidence(located), located.path(), MOST, clock().instant());
            } catch (IllegalArgumentException e) {
                // It lies in no protected folder: nothing is known of its content.
                return Arrivals.look(
                        settings().arrivals(), String.valueOf(file.getFileName()), MOST, clock().instant());
            }
        }
        return Arrivals.look(settings().arrivals(), "", MOST, clock().instant());
    }

    private static String mail(Arrivals.Mail mail, Map<String, String> addresses) {
        return Words.of("arrivals.mail", mail.author(addresses), mail.subject());
    }

    @Override
    public Integer call() throws Exception {
        List<Path> chosen = folders;
        if (chosen != null) {
            List<Path> real = new ArrayList<>();
            for (Path f : chosen) {
                real.add(Protect.realOfNew(f));
            }
            settings().arrivals(real);
        }
        Map<String, String> addresses = settings().addresses();
        List<Object> all = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        for (Arrivals.Arrival a : arrivals()) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("name", a.name());
            map.put("file", a.file().toString());
            map.put("size", a.size());
            map.put("came", a.came().toString());
            map.put("likely", a.likely());
            a.mail().ifPresent(m -> {
                map.put("from", m.from());
                map.put("address", m.address());
                map.put("subject", m.subject());
            });
            all.add(map);
            rows.add(List.of(
                    a.mail().map(Arrivals.Mail::name).orElse(a.file().toString()),
                    Formats.size(a.size()),
                    Formats.moment(a.came(), now(), zone()),
                    a.likely() ? Words.of("arrivals.likely") : "",
                    a.mail().map(m -> mail(m, addresses)).orElse("")));
        }
        if (json) {
            printJson(all);
        } else if (rows.isEmpty()) {
            say(
                    "arrivals.none",
                    String.join(
                            ", ",
                            settings().arrivals().stream().map(Path::toString).toList()));
        } else {
            table(rows, "lrlll");
        }
        return ExitCodes.DONE;
    }
}
