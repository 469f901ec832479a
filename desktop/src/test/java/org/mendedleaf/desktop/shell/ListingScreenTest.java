package org.mendedleaf.desktop.shell;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.TreeTableCell;
import javafx.scene.control.skin.TableColumnHeader;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;

/** A folder with more files than fit. */
class ListingScreenTest extends WindowTest {

    private static final int FILES = 60;

    private void manyFiles() throws Exception {
        fill();
        Instant day = Instant.now().minus(Duration.ofDays(2));
        for (int i = 0; i < FILES; i++) {
            save("note %02d.txt".formatted(i), "note " + i, day);
        }
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = vault.read().places().get(0);
            capture(vault, place, day.plusSeconds(100));
        }
        show();
        eventually("the files", () -> robot.lookup("note 00.txt").tryQuery().isPresent());
    }

    private static Bounds inScene(Node node) {
        return node.localToScene(node.getLayoutBounds());
    }

    /** By how much the head of each column stands beside its cells. */
    private List<Double> besides() {
        List<Double> all = new ArrayList<>();
        robot.interact(() -> {
            List<TreeTableCell<?, ?>> cells = new ArrayList<>();
            robot.lookup("#listing .tree-table-row-cell .tree-table-cell").queryAll().stream()
                    .map(n -> (TreeTableCell<?, ?>) n)
                    .filter(c -> c.isVisible() && c.getIndex() == 1)
                    .forEach(cells::add);
            for (Node head : robot.lookup("#listing .column-header").queryAll()) {
                if (head instanceof TableColumnHeader h && h.getTableColumn() != null && h.isVisible()) {
                    cells.stream()
                            .filter(c -> c.getTableColumn() == h.getTableColumn())
                            .forEach(c -> all.add(
                                    Math.abs(inScene(c).getMinX() - inScene(h).getMinX())));
                }
            }
        });
        return all;
    }

    @Test
    void theHeadsOfColumnsStandAboveThemAlsoBesideABarToScrollWith() throws Exception {
        manyFiles();
        eventually(
                "heads above their columns",
                () -> besides().size() >= 4 && besides().stream().allMatch(b -> b < 1.5));
    }

    @Test
    void allFilesAreChosenAndLetGoByOneKey() throws Exception {
        manyFiles();
        robot.clickOn("note 00.txt");
        robot.push(KeyCode.CONTROL, KeyCode.A);
        String all = FILES + 3 + " files chosen";
        eventually("all of them", () -> chosen().startsWith(all));
        robot.clickOn("Recover…");
        String heading = "Recover " + (FILES + 3) + " chosen files and folders, as of now";
        eventually("their plan", () -> robot.lookup(heading).tryQuery().isPresent());
        eventually(
                "what would come back",
                () -> robot.lookup("gone.txt").tryQuery().isPresent());
        robot.clickOn("Back");
        eventually("the listing", () -> chosen().startsWith(all));
        robot.clickOn("note 00.txt");
        robot.push(KeyCode.CONTROL, KeyCode.A);
        eventually("none of them", () -> chosen().isEmpty());
    }

    private String chosen() {
        return robot.lookup(".label").queryAllAs(Labeled.class).stream()
                .filter(WindowTest::shown)
                .map(Labeled::getText)
                .filter(t -> t.contains("files chosen"))
                .findFirst()
                .orElse("");
    }
}
