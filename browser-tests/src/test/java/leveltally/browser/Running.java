package leveltally.browser;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** The packaged application, started by the start command as a stranger would, on a folder and ports of its own. */
final class Running {
    private static Running shared;

    private final Path data;
    private final int port;
    private final List<String> always;
    private String said = "";
    private Process start;

    private Running(Path data, int port, List<String> always) {
        this.data = data;
        this.port = port;
        this.always = always;
    }

    /** One for all tests of a run; the demo comes from the copy that {@code ./test} had kept, or is made anew. */
    static synchronized Running shared() {
        if (shared == null) {
            shared = demo();
        }
        return shared;
    }

    /** One more with the demo, for a test after which it is another day. */
    static Running demo() {
        String copy = System.getenv("LEVELTALLY_DEMO_COPY");
        return begin(List.of(), copy == null ? List.of() : List.of("--restore", copy));
    }

    /** One more, as a company starts it: without anything made up. */
    static Running empty() {
        return begin(List.of("--no-demo"), List.of());
    }

    /** With what is said at every start, and at the first only. */
    private static Running begin(List<String> always, List<String> first) {
        try {
            Path data = Files.createTempDirectory("level-tally-browser");
            data.toFile().setExecutable(true, false);
            data.toFile().setReadable(true, false);
            Running running = new Running(data, freePort(), always);
            running.launch(first);
            Runtime.getRuntime().addShutdownHook(new Thread(running::stop));
            return running;
        } catch (IOException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** The code that lets the first administrator be made, as the start command printed it. */
    String setupCode() {
        return said.replaceAll("(?s).*setup code (\\S+).*", "$1");
    }

    String address() {
        return "http://127.0.0.1:" + port;
    }

    private void launch(List<String> first) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                Path.of("..", "start").toAbsolutePath().normalize().toString(),
                "--port",
                String.valueOf(port),
                "--data",
                data.toString()));
        command.addAll(always);
        command.addAll(first);
        start = new ProcessBuilder(command).redirectErrorStream(true).start();
        BufferedReader lines =
                new BufferedReader(new InputStreamReader(start.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder all = new StringBuilder();
        for (String line = lines.readLine(); line != null; line = lines.readLine()) {
            all.append(line).append('\n');
            // the last line it prints
            if (line.contains("Ctrl-C stops it")) {
                said = all.toString();
                return;
            }
        }
        throw new IllegalStateException("the start command ended:\n" + all);
    }

    /** Kills application and database without a word, as a power cut would, and starts both again on the same data. */
    void powerCut() {
        try {
            start.descendants().forEach(ProcessHandle::destroyForcibly);
            start.destroyForcibly().waitFor();
            launch(List.of());
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }

    void stop() {
        start.destroy();
        try {
            start.waitFor(20, TimeUnit.SECONDS);
            new ProcessBuilder(List.of("rm", "-rf", data.toString())).start().waitFor();
        } catch (IOException | InterruptedException leftOver) {
            start.destroyForcibly();
        }
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }
}
