package org.mendedleaf.cli.care;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeSettings;
import org.mendedleaf.core.notices.QuietHours;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** What needs attention, and how people are told of it. */
@Command(name = "notices", description = "${bundle:cli.notices}")
public final class NoticesCommand extends Base {

    /** Whether something is so. */
    enum Switch {
        /** It is. */
        ON,
        /** It is not. */
        OFF
    }

    @Option(names = "--desktop", paramLabel = "on|off", descriptionKey = "cli.notices.desktop")
    @Nullable
    Switch desktop;

    @Option(names = "--quiet-hours", paramLabel = "FROM-TO|off", descriptionKey = "cli.notices.quiet")
    @Nullable
    String quietHours;

    @Option(names = "--test", descriptionKey = "cli.notices.test")
    boolean test;

    public NoticesCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        NoticeSettings settings = NoticeSettings.of(settings());
        if (desktop != null || quietHours != null) {
            settings = new NoticeSettings(
                    desktop == null ? settings.desktop() : desktop == Switch.ON,
                    quietHours == null ? settings.quiet() : QuietHours.parse(quietHours));
            settings.save(settings());
        }
        if (test) {
            boolean told = DesktopNotice.tell(Words.of("desktop.title"), Words.of("cli.notices.test.words"));
            say(told ? "cli.notices.tested" : "cli.notices.notTested");
            return told ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
        List<Concern> all = new ArrayList<>();
        int code = settings().vaults().isEmpty() && vault == null
                ? ExitCodes.DONE
                : eachVault((folder, open) -> {
                    all.addAll(Concern.of(open, who(), now(), zone()));
                    return ExitCodes.DONE;
                });
        print(all, settings);
        return code;
    }

    private void print(List<Concern> all, NoticeSettings settings) {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("desktop", settings.desktop());
            map.put("quietHours", settings.quiet().text());
            map.put("concerns", all.stream().map(NoticesCommand::map).toList());
            printJson(map);
            return;
        }
        all.forEach(c -> line(c.code() + "  " + c.words()));
        if (all.isEmpty()) {
            say("cli.notices.none");
        }
        say("cli.notices.settings", settings.desktop() ? 1 : 0, settings.quiet().text());
    }

    static Map<String, Object> map(Concern c) {
        return Map.of("id", c.code(), "kind", c.kind().name(), "words", c.words());
    }
}
