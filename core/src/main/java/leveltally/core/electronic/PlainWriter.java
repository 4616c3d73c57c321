package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.nio.charset.StandardCharsets;

/** Hands ASCII on to a stream, without a lock for each character as the library's writers have. */
final class PlainWriter extends Writer {
    private static final int AT_ONCE = 1 << 14;

    private final OutputStream out;
    private final StringBuilder some = new StringBuilder(AT_ONCE + AT_ONCE / 4);

    PlainWriter(OutputStream out) {
        this.out = out;
    }

    @Override
    public void write(int one) throws IOException {
        some.append((char) one);
        if (some.length() >= AT_ONCE) {
            handOn();
        }
    }

    @Override
    public void write(char[] from, int begin, int length) throws IOException {
        some.append(from, begin, length);
        if (some.length() >= AT_ONCE) {
            handOn();
        }
    }

    @Override
    public void write(String text, int begin, int length) throws IOException {
        some.append(text, begin, begin + length);
        if (some.length() >= AT_ONCE) {
            handOn();
        }
    }

    private void handOn() throws IOException {
        out.write(some.toString().getBytes(StandardCharsets.US_ASCII));
        some.setLength(0);
    }

    @Override
    public void flush() throws IOException {
        handOn();
        out.flush();
    }

    /** The stream stays open. */
    @Override
    public void close() throws IOException {
        flush();
    }
}
