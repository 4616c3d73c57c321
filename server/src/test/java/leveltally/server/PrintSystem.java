package leveltally.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import org.springframework.util.FileSystemUtils;

/** A printing system of the tests' own on loopback, whose one queue lays what it is given into a file. */
final class PrintSystem implements AutoCloseable {
    static final String QUEUE = "tray";

    private final Path folder;
    private final int port;
    private final Process process;

    private PrintSystem(Path folder, int port, Process process) {
        this.folder = folder;
        this.port = port;
        this.process = process;
    }

    /** A port that nothing uses now. */
    static int freePort() {
        try (ServerSocket free = new ServerSocket(0)) {
            return free.getLocalPort();
        } catch (IOException none) {
            throw new UncheckedIOException(none);
        }
    }

    static PrintSystem start(int port) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("print-system");
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        for (String name : List.of("root", "spool", "cache", "run", "tmp", "bin", "bin/backend")) {
            Files.createDirectory(folder.resolve(name));
        }
        // a queue without filters writes to no file by itself: this is what carries its jobs
        Path carrier = Files.writeString(folder.resolve("bin/backend/tray"), """
                #!/bin/sh
                [ $# -eq 0 ] && exit 0
                cat $6 >> "${DEVICE_URI#tray:}"
                """);
        Files.setPosixFilePermissions(carrier, PosixFilePermissions.fromString("rwxr-xr-x"));
        Files.createSymbolicLink(folder.resolve("bin/daemon"), Path.of("/usr/lib/cups/daemon"));
        Files.writeString(folder.resolve("cupsd.conf"), """
                Listen 127.0.0.1:%d
                Browsing No
                DefaultAuthType None
                WebInterface No
                <Location />
                Allow all
                </Location>
                <Location /admin>
                Allow all
                </Location>
                <Policy default>
                <Limit All>
                Order allow,deny
                </Limit>
                </Policy>
                """.formatted(port));
        Files.writeString(folder.resolve("cups-files.conf"), """
                ServerBin %1$s/bin
                ServerRoot %1$s/root
                RequestRoot %1$s/spool
                CacheDir %1$s/cache
                StateDir %1$s/run
                TempDir %1$s/tmp
                AccessLog %1$s/access
                ErrorLog %1$s/error
                PageLog %1$s/page
                """.formatted(folder));
        Process process = new ProcessBuilder(
                        "/usr/sbin/cupsd",
                        "-f",
                        "-c",
                        folder.resolve("cupsd.conf").toString(),
                        "-s",
                        folder.resolve("cups-files.conf").toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("said").toFile())
                .start();
        PrintSystem system = new PrintSystem(folder, port, process);
        system.awaitOpen();
        Path tray = Files.createFile(system.tray());
        Files.setPosixFilePermissions(tray, PosixFilePermissions.fromString("rw-rw-rw-"));
        system.command("lpadmin", "-p", QUEUE, "-v", "tray:" + tray, "-m", "raw", "-E");
        return system;
    }

    private void awaitOpen() throws IOException, InterruptedException {
        for (int i = 0; i < 200; i++) {
            try (Socket open = new Socket("127.0.0.1", port)) {
                if (open.isConnected()) {
                    return;
                }
            } catch (IOException notYet) {
                Thread.sleep(50);
            }
        }
        throw new IOException("no printing system: " + Files.readString(folder.resolve("said")));
    }

    String address() {
        return "127.0.0.1:" + port;
    }

    /** What was printed. */
    Path tray() {
        return folder.resolve("tray");
    }

    /** Waits until its queue has nothing left to print. */
    byte[] printed() throws IOException, InterruptedException {
        for (int i = 0; i < 200; i++) {
            byte[] bytes = Files.readAllBytes(tray());
            String end = new String(
                    bytes, Math.max(0, bytes.length - 8), Math.min(8, bytes.length), StandardCharsets.US_ASCII);
            if (end.contains("%%EOF")) {
                return bytes;
            }
            Thread.sleep(50);
        }
        throw new IOException("nothing came out");
    }

    /** Holds what it is given from now on, or lets it out. */
    void hold(boolean held) throws IOException, InterruptedException {
        command(held ? "cupsdisable" : "cupsenable", QUEUE);
    }

    void refuse(boolean refused) throws IOException, InterruptedException {
        command(refused ? "cupsreject" : "cupsaccept", QUEUE);
    }

    private void command(String name, String... words) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("/usr/sbin/" + name, "-h", address()));
        command.addAll(List.of(words));
        Process done = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (done.waitFor() != 0) {
            throw new IOException(name + " failed");
        }
    }

    @Override
    public void close() throws IOException {
        process.destroy();
        try {
            process.waitFor();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        FileSystemUtils.deleteRecursively(folder);
    }
}
