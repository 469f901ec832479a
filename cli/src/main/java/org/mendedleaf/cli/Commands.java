package org.mendedleaf.cli;

import java.util.List;
import org.mendedleaf.cli.care.CheckCommand;
import org.mendedleaf.cli.care.CopyVaultCommand;
import org.mendedleaf.cli.care.DismissCommand;
import org.mendedleaf.cli.care.FindingsCommand;
import org.mendedleaf.cli.care.HealthCommand;
import org.mendedleaf.cli.care.MendCommand;
import org.mendedleaf.cli.care.NoticesCommand;
import org.mendedleaf.cli.care.StatusCommand;
import org.mendedleaf.cli.keep.EraseCommand;
import org.mendedleaf.cli.keep.ForecastCommand;
import org.mendedleaf.cli.keep.HoldCommand;
import org.mendedleaf.cli.keep.KeptCommand;
import org.mendedleaf.cli.keep.ReclaimCommand;
import org.mendedleaf.cli.keep.RemovedCommand;
import org.mendedleaf.cli.keep.RulesCommand;
import org.mendedleaf.cli.keep.SnapshotCommand;
import org.mendedleaf.cli.keep.SpaceCommand;
import org.mendedleaf.cli.keep.ThinCommand;
import org.mendedleaf.cli.keep.UnfoldCommand;
import org.mendedleaf.cli.keep.UnholdCommand;
import org.mendedleaf.cli.past.CompareCommand;
import org.mendedleaf.cli.past.FindCommand;
import org.mendedleaf.cli.past.IndexCommand;
import org.mendedleaf.cli.past.JournalCommand;
import org.mendedleaf.cli.past.LineCommand;
import org.mendedleaf.cli.past.ListCommand;
import org.mendedleaf.cli.past.PreviewCommand;
import org.mendedleaf.cli.protect.CaptureCommand;
import org.mendedleaf.cli.protect.ProtectCommand;
import org.mendedleaf.cli.protect.ServiceCommand;
import org.mendedleaf.cli.protect.SetCommand;
import org.mendedleaf.cli.protect.UnprotectCommand;
import org.mendedleaf.cli.protect.WatchCommand;
import org.mendedleaf.cli.recover.CopyCommand;
import org.mendedleaf.cli.recover.PickCommand;
import org.mendedleaf.cli.recover.RedoCommand;
import org.mendedleaf.cli.recover.RemoveCommand;
import org.mendedleaf.cli.recover.RestoreCommand;
import org.mendedleaf.cli.recover.RollbackCommand;
import org.mendedleaf.cli.recover.UndoCommand;
import org.mendedleaf.cli.revise.ArrivalsCommand;
import org.mendedleaf.cli.revise.CheckInCommand;
import org.mendedleaf.cli.revise.CheckOutCommand;
import org.mendedleaf.cli.revise.FoldCommand;
import org.mendedleaf.cli.revise.NoteCommand;
import org.mendedleaf.cli.revise.PublishCommand;
import org.mendedleaf.cli.revise.PutCommand;
import org.mendedleaf.cli.revise.StraysCommand;
import org.mendedleaf.cli.revise.TakeCommand;
import org.mendedleaf.cli.systems.ConnectCommand;
import org.mendedleaf.cli.systems.DisconnectCommand;
import org.mendedleaf.cli.systems.PlaceCommand;
import org.mendedleaf.cli.systems.StandinsCommand;
import org.mendedleaf.cli.systems.SystemsCommand;

/** The commands by their names, in the order of the help. Only the class of one that is asked for is loaded. */
final class Commands {

    /** All of them. */
    static final List<String> NAMES = List.of(
            "protect",
            "set",
            "unprotect",
            "capture",
            "watch",
            "service",
            "list",
            "line",
            "compare",
            "preview",
            "find",
            "index",
            "journal",
            "restore",
            "rollback",
            "pick",
            "copy",
            "remove",
            "undo",
            "redo",
            "put",
            "publish",
            "checkout",
            "checkin",
            "note",
            "fold",
            "strays",
            "arrivals",
            "take",
            "snapshot",
            "space",
            "kept",
            "rules",
            "thin",
            "hold",
            "unhold",
            "erase",
            "removed",
            "reclaim",
            "unfold",
            "forecast",
            "findings",
            "mend",
            "dismiss",
            "health",
            "notices",
            "check",
            "copy-vault",
            "status",
            "systems",
            "connect",
            "disconnect",
            "place",
            "standins",
            "people",
            "language",
            "guide",
            "completion",
            "man");

    private Commands() {}

    /** Whether nothing is asked but what program this is: that is answered without looking at commands. */
    static boolean isVersion(String[] arguments) {
        return arguments.length == 1 && (arguments[0].equals("--version") || arguments[0].equals("-V"));
    }

    /** Whether the help of the whole is asked for, which names each command and says what it is for. */
    static boolean isOutline(String[] arguments) {
        return List.of("-h", "--help").containsAll(List.of(arguments));
    }

    /**
     * Those that these arguments can be about: the one that they name, or all where they name none, or one that tells of all.
     */
    static List<String> asked(String[] arguments) {
        String first = arguments.length == 0 ? "" : arguments[0];
        boolean tellsOfAll = first.equals("completion") || first.equals("man");
        return NAMES.contains(first) && !tellsOfAll ? List.of(first) : NAMES;
    }

    /** The class of a command. */
    static Class<?> named(String name) {
        return switch (name) {
            case "protect" -> ProtectCommand.class;
            case "set" -> SetCommand.class;
            case "unprotect" -> UnprotectCommand.class;
            case "capture" -> CaptureCommand.class;
            case "watch" -> WatchCommand.class;
            case "service" -> ServiceCommand.class;
            case "list" -> ListCommand.class;
            case "line" -> LineCommand.class;
            case "compare" -> CompareCommand.class;
            case "preview" -> PreviewCommand.class;
            case "find" -> FindCommand.class;
            case "index" -> IndexCommand.class;
            case "journal" -> JournalCommand.class;
            case "restore" -> RestoreCommand.class;
            case "rollback" -> RollbackCommand.class;
            case "pick" -> PickCommand.class;
            case "copy" -> CopyCommand.class;
            case "remove" -> RemoveCommand.class;
            case "undo" -> UndoCommand.class;
            case "redo" -> RedoCommand.class;
            case "put" -> PutCommand.class;
            case "publish" -> PublishCommand.class;
            case "checkout" -> CheckOutCommand.class;
            case "checkin" -> CheckInCommand.class;
            case "note" -> NoteCommand.class;
            case "fold" -> FoldCommand.class;
            case "strays" -> StraysCommand.class;
            case "arrivals" -> ArrivalsCommand.class;
            case "take" -> TakeCommand.class;
            case "snapshot" -> SnapshotCommand.class;
            case "space" -> SpaceCommand.class;
            case "kept" -> KeptCommand.class;
            case "rules" -> RulesCommand.class;
            case "thin" -> ThinCommand.class;
            case "hold" -> HoldCommand.class;
            case "unhold" -> UnholdCommand.class;
            case "erase" -> EraseCommand.class;
            case "removed" -> RemovedCommand.class;
            case "reclaim" -> ReclaimCommand.class;
            case "unfold" -> UnfoldCommand.class;
            case "forecast" -> ForecastCommand.class;
            case "findings" -> FindingsCommand.class;
            case "mend" -> MendCommand.class;
            case "dismiss" -> DismissCommand.class;
            case "health" -> HealthCommand.class;
            case "notices" -> NoticesCommand.class;
            case "check" -> CheckCommand.class;
            case "copy-vault" -> CopyVaultCommand.class;
            case "status" -> StatusCommand.class;
            case "systems" -> SystemsCommand.class;
            case "connect" -> ConnectCommand.class;
            case "disconnect" -> DisconnectCommand.class;
            case "place" -> PlaceCommand.class;
            case "standins" -> StandinsCommand.class;
            case "people" -> PeopleCommand.class;
            case "language" -> LanguageCommand.class;
            case "guide" -> GuideCommand.class;
            case "completion" -> CompletionCommand.class;
            case "man" -> ManCommand.class;
            default -> throw new IllegalArgumentException(name);
        };
    }
}
