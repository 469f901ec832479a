package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.guide.Guide;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Prints a page of the guide, or writes all of it as HTML. */
@Command(name = "guide", description = "${bundle:cli.guide}")
final class GuideCommand extends Base {

    @Parameters(arity = "0..1", paramLabel = "PAGE", descriptionKey = "cli.guide.page")
    String page = "index";

    @Option(names = "--to", paramLabel = "DIR", descriptionKey = "cli.guide.to")
    @Nullable
    Path to;

    GuideCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws IOException {
        settings();
        Guide guide = Guide.here();
        String text = guide.markdown(page);
        Path folder = to;
        if (folder == null) {
            surroundings.out().print(text);
            return ExitCodes.DONE;
        }
        say("cli.guide.written", Guide.PAGES.size(), guide.write(folder, page));
        return ExitCodes.DONE;
    }
}
