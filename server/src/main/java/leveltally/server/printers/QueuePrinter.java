package leveltally.server.printers;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterKind;
import leveltally.core.printers.QueueSays;
import leveltally.server.frame.Settings;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** A queue of the printing system, by its own commands {@code lp} and {@code cancel}. */
@Component
class QueuePrinter implements Printer {
    private static final Logger LOG = LoggerFactory.getLogger(QueuePrinter.class);
    private static final long PATIENCE_S = 40;
    private static final int MOST_SAID = 4_000;

    private final String server;

    QueuePrinter(Settings settings) {
        this.server = settings.printSystem();
    }

    @Override
    public PrinterKind kind() {
        return PrinterKind.QUEUE;
    }

    @Override
    public Handed print(CompanyPrinter on, PrintJob job) {
        try {
            Said said = run(job.pdf(), "lp", "-d", on.queue(), "-t", job.title());
            return QueueSays.ofHanding(said.code(), said.text());
        } catch (NotHere missing) {
            return Handed.refused("the printing system's program lp is not installed on this server");
        } catch (IOException broken) {
            return Handed.notKnown("it did not answer");
        }
    }

    @Override
    public boolean mayStillPrint(CompanyPrinter on, String job) {
        if (job.isEmpty()) {
            return true;
        }
        try {
            Said said = run(new byte[0], "lpstat", "-W", "not-completed", "-o", on.queue());
            return QueueSays.mayStillPrint(said.code(), said.text(), job);
        } catch (NotHere | IOException broken) {
            return true;
        }
    }

    @Override
    public void callBack(CompanyPrinter on, String job) {
        if (job.isEmpty()) {
            return;
        }
        try {
            run(new byte[0], "cancel", job);
        } catch (NotHere | IOException broken) {
            LOG.info("job {} of {} could not be called back", job, on.queue());
        }
    }

    private record Said(int code, String text) {}

    /** The program is not there, so that it cannot have done anything. */
    private static final class NotHere extends Exception {
        private static final long serialVersionUID = 1;
    }

    /** Runs a command with the pages as its input; no page touches the disk here. */
    private Said run(byte[] input, String... words) throws NotHere, IOException {
        Path heard = Files.createTempFile("printer", ".txt");
        try {
            Process process = start(heard, words);
            // beside us, and on no thread others wait for: whoever does not read must not keep us longer than our
            // patience
            Thread giving = new Thread(() -> give(process, input), "pages for " + words[0]);
            giving.setDaemon(true);
            giving.start();
            if (!process.waitFor(PATIENCE_S, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                throw new IOException("no answer");
            }
            String text = new String(Files.readAllBytes(heard), StandardCharsets.UTF_8);
            return new Said(process.exitValue(), text.substring(0, Math.min(MOST_SAID, text.length())));
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException("stopped while it was asked", stopped);
        } finally {
            Files.deleteIfExists(heard);
        }
    }

    private static void give(Process process, byte[] input) {
        try (OutputStream in = process.getOutputStream()) {
            in.write(input);
        } catch (IOException ended) {
            // it ended before it read everything; what it said tells why
        }
    }

    private Process start(Path heard, String... words) throws NotHere {
        List<String> command = new ArrayList<>(List.of(words));
        if (!server.isEmpty()) {
            command.addAll(1, List.of("-h", server));
        }
        ProcessBuilder builder =
                new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(heard.toFile());
        builder.environment().put("LC_ALL", "C");
        try {
            return builder.start();
        } catch (IOException missing) {
            throw new NotHere();
        }
    }
}
