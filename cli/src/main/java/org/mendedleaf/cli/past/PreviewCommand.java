package org.mendedleaf.cli.past;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.JsonMapping;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.TextPart;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Shows what a version says. */
@Command(name = "preview", description = "${bundle:cli.preview}")
public final class PreviewCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.preview.version")
    @Nullable
    String version;

    @Option(names = "--sheet", paramLabel = "S", descriptionKey = "cli.preview.sheet")
    @Nullable
    String sheet;

    @Option(names = "--page", paramLabel = "P", descriptionKey = "cli.preview.page")
    @Nullable
    Integer page;

    @Option(names = "--part", paramLabel = "P", descriptionKey = "cli.preview.part.option")
    @Nullable
    Integer part;

    @Option(names = "--member", paramLabel = "PATH", descriptionKey = "cli.preview.member")
    @Nullable
    String member;

    @Option(names = "--formulas", descriptionKey = "cli.preview.formulas")
    boolean formulas;

    public PreviewCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file);
                Reading reading = located.vault().read()) {
            Line line = line(located, reading);
            String named = version;
            Version wanted = named != null
                    ? version(line, named)
                    : line.newest()
                            .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", located.file())));
            Version here = inVault(located.vault(), wanted);
            Integer number = part;
            if (number != null || here.size() > Compare.MOST) {
                return part(reading, wanted, here, number == null ? 1 : number);
            }
            Side side = Side.version(reading, here);
            String name = side.name();
            byte[] content = side.content();
            String inside = member;
            if (inside != null) {
                content = DocumentProcess.shared().member(name, content, inside);
                name = inside;
            }
            Document document = narrowed(DocumentProcess.shared().read(name, content, false));
            if (json) {
                print(wanted, document);
            } else {
                print(document, content.length);
            }
            return ExitCodes.DONE;
        }
    }

    /** A part of a large text, from 1. */
    private int part(Reading reading, Version wanted, Version here, int number) throws IOException {
        Document text = DocumentCache.part(reading, here, number - 1);
        if (json) {
            print(wanted, text);
        } else {
            print(text, here.size());
            say("cli.preview.part", number, TextPart.count(here.size()));
        }
        return ExitCodes.DONE;
    }

    private Document narrowed(Document document) {
        String wanted = sheet;
        if (wanted != null) {
            List<Document.Sheet> all = document instanceof Document.Sheets s ? s.sheets() : List.of();
            for (int i = 0; i < all.size(); i++) {
                if (all.get(i).name().equals(wanted) || Integer.toString(i + 1).equals(wanted)) {
                    return new Document.Sheets(List.of(all.get(i)), ((Document.Sheets) document).cut());
                }
            }
            throw new IllegalArgumentException(Words.of(
                    "cli.preview.noSheet",
                    wanted,
                    String.join(", ", all.stream().map(Document.Sheet::name).toList())));
        }
        Integer number = page;
        if (number != null) {
            List<Document.Section> all = document instanceof Document.Prose p ? p.sections() : List.of();
            if (number < 1 || number > all.size()) {
                throw new IllegalArgumentException(Words.of("cli.preview.noPage", number, all.size()));
            }
            Document.Prose prose = (Document.Prose) document;
            return new Document.Prose(prose.form(), List.of(all.get(number - 1)), false);
        }
        return document;
    }

    private void print(Version version, Document document) {
        ObjectNode node = JsonMapping.JSON.valueToTree(document);
        node.remove("png");
        ObjectNode map = JsonMapping.JSON.createObjectNode();
        map.put("path", version.path());
        map.put("version", version.label());
        map.set("document", node);
        printJson(map);
    }

    private void print(Document document, long size) {
        boolean cut = false;
        if (document instanceof Document.Empty) {
            say("cli.preview.empty");
        } else if (document instanceof Document.Text text) {
            text.lines().forEach(this::line);
            cut = text.cut();
        } else if (document instanceof Document.Sheets sheets) {
            sheets.sheets().forEach(this::print);
            cut = sheets.cut();
        } else if (document instanceof Document.Prose prose) {
            for (int i = 0; i < prose.sections().size(); i++) {
                print(prose.form(), i, prose.sections().get(i));
            }
            cut = prose.cut();
        } else if (document instanceof Document.Archive archive) {
            table(
                    archive.members().stream()
                            .map(m -> List.of(m.folder() ? "" : Formats.size(Math.max(0, m.size())), m.path()))
                            .toList(),
                    "rl");
            cut = archive.cut();
        } else if (document instanceof Document.Picture picture) {
            say("cli.preview.picture", picture.width(), picture.height());
            picture.facts().forEach(f -> line(f.name() + ": " + f.value()));
        } else if (document instanceof Document.Other other) {
            say("cli.preview.other", other.type(), Formats.size(size));
            if (!other.why().isEmpty()) {
                line(other.why());
            }
            other.facts().forEach(f -> line(f.name() + ": " + f.value()));
            other.strings().forEach(this::line);
            other.hex().forEach(this::line);
        }
        if (cut) {
            say("cli.preview.cut");
        }
    }

    private void print(Document.Sheet sheet) {
        if (!sheet.name().isEmpty()) {
            line(sheet.name());
        }
        List<List<String>> rows = new ArrayList<>();
        int width = sheet.width();
        for (int r = 0; r < sheet.rows().size(); r++) {
            List<String> row = new ArrayList<>();
            row.add(Integer.toString(r + 1));
            for (int c = 0; c < width; c++) {
                Document.Cell cell = sheet.rows().get(r).cell(c);
                row.add(formulas && !cell.formula().isEmpty() ? cell.formula() : cell.shown());
            }
            rows.add(row);
        }
        table(rows, "r");
    }

    private void print(Document.Form form, int number, Document.Section section) {
        boolean numbered = form == Document.Form.SLIDES || form == Document.Form.PAGES;
        if (numbered || !section.name().isEmpty()) {
            String name = numbered
                    ? Words.of("compare.where." + (form == Document.Form.SLIDES ? "slide" : "page"), number + 1)
                    : section.name();
            line("— " + name.toUpperCase(Locale.ROOT).charAt(0) + name.substring(1));
        }
        for (Document.Block block : section.blocks()) {
            if (block.style() == Document.Style.HEADING) {
                line("");
            }
            line(
                    switch (block.style()) {
                        case ITEM ->
                            "  ".repeat(Math.max(1, block.level())) + "• "
                                    + block.text().replace('\t', ' ');
                        case NOTE -> "    [" + block.text() + "]";
                        case PICTURE -> "    [" + block.text() + "]";
                        case FACT -> block.text().replaceFirst("\t", ": ");
                        default -> block.text();
                    });
        }
    }
}
