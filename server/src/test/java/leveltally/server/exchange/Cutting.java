package leveltally.server.exchange;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;

/** A line to a host that is cut after so many bytes towards it; one that hangs takes no byte on and says nothing. */
final class Cutting implements AutoCloseable {
    private final ServerSocket here;
    private volatile long bytes;

    /** @param port where the host listens */
    Cutting(int port, long bytes) {
        this.bytes = bytes;
        try {
            here = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        } catch (IOException none) {
            throw new UncheckedIOException(none);
        }
        daemon(() -> accept(port));
    }

    int port() {
        return here.getLocalPort();
    }

    /** From the next connection on. */
    void after(long many) {
        this.bytes = many;
    }

    private void accept(int port) {
        try {
            while (true) {
                Socket client = here.accept();
                if (bytes == 0) {
                    // it hangs: taken, and never answered
                    continue;
                }
                Socket host = new Socket(InetAddress.getLoopbackAddress(), port);
                long most = bytes;
                daemon(() -> copy(client, host, most));
                daemon(() -> copy(host, client, Long.MAX_VALUE));
            }
        } catch (IOException closed) {
            // over
        }
    }

    private static void copy(Socket from, Socket to, long most) {
        byte[] some = new byte[512];
        long left = most;
        try (from;
                to;
                InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            while (left > 0) {
                int read = in.read(some, 0, (int) Math.min(some.length, left));
                if (read < 0) {
                    return;
                }
                out.write(some, 0, read);
                out.flush();
                left -= read;
            }
        } catch (IOException cut) {
            // that is what it is for
        }
    }

    private static void daemon(Runnable work) {
        Thread thread = new Thread(work);
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public void close() throws IOException {
        here.close();
    }
}
