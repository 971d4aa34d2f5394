package app.custodex.cli;

import app.custodex.app.Custodex;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** The top of the command line. */
@Command(
        name = "custodex",
        description = "Takes in phones, copies them in full, reads the copies and takes out what is needed.",
        mixinStandardHelpOptions = true,
        version = Custodex.TOOL,
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            PhonesCommand.class,
            SourceCommand.class,
            DocketCommand.class,
            SurveyCommand.class,
            BackupCommand.class,
            WatchCommand.class,
            RunsCommand.class,
            LayersCommand.class,
            ChangesCommand.class,
            CheckCommand.class,
            StrongroomCommand.class,
            ListCommand.class,
            FindCommand.class,
            CompareCommand.class,
            TwinsCommand.class,
            OnlyHereCommand.class,
            ShowCommand.class,
            ContactsCommand.class,
            ExtractCommand.class,
            DatabaseCommand.class,
            ToneCommand.class,
            FormatsCommand.class,
            PracticeCommand.class
        },
        footerHeading = "%nThe launcher adds: demo, open, shots FOLDER, test.%n",
        exitCodeListHeading = "%nExit codes:%n",
        exitCodeList = {
            "0:Done",
            "1:Could not be done; the message says why",
            "2:The command was not understood",
            "3:Done, but something is missing or damaged; the output names it"
        })
final class CustodexCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
