package leveltally.core.bankfiles;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Records while they are written, in the bytes of their encoding: what comes again is encoded once, and figures are written digit
 * by digit where an encoding has the bytes of ASCII for them.
 */
public final class RecordBytes {
    private static final int FIRST = 1 << 12;
    private static final String ASCII =
            IntStream.rangeClosed(' ', '~').mapToObj(Character::toString).collect(Collectors.joining());

    /** 00 to 99. */
    private static final byte[] TWO_DIGITS = IntStream.range(0, 100)
            .mapToObj(two -> String.format(java.util.Locale.ROOT, "%02d", two))
            .collect(Collectors.joining())
            .getBytes(StandardCharsets.US_ASCII);

    private byte[] bytes = new byte[FIRST];
    private int length;

    /** Whether digits, letters and signs of ASCII have the same bytes there. */
    static boolean hasAscii(Charset charset) {
        return Arrays.equals(ASCII.getBytes(charset), ASCII.getBytes(StandardCharsets.US_ASCII));
    }

    public int length() {
        return length;
    }

    public void clear() {
        length = 0;
    }

    public void writeTo(OutputStream out) throws IOException {
        out.write(bytes, 0, length);
    }

    void put(byte[] some) {
        room(some.length);
        if (some.length == 1) {
            // a separator
            bytes[length] = some[0];
        } else {
            System.arraycopy(some, 0, bytes, length, some.length);
        }
        length += some.length;
    }

    /** A character of ASCII. */
    void put(char one) {
        room(1);
        bytes[length++] = (byte) one;
    }

    /** Characters of ASCII. */
    void put(String some) {
        room(some.length());
        for (int i = 0; i < some.length(); i++) {
            bytes[length++] = (byte) some.charAt(i);
        }
    }

    void fill(char with, int many) {
        room(many);
        for (int i = 0; i < many; i++) {
            bytes[length++] = (byte) with;
        }
    }

    /** The last so many digits of a figure, with zeros before them. */
    void digits(long figure, int many) {
        room(many);
        long rest = figure;
        int at = length + many;
        // two at a time: a division takes longer than all else of it
        while (at - 2 >= length) {
            long next = rest / 100;
            int two = (int) (rest - next * 100) * 2;
            bytes[--at] = TWO_DIGITS[two + 1];
            bytes[--at] = TWO_DIGITS[two];
            rest = next;
        }
        if (at > length) {
            bytes[--at] = (byte) ('0' + rest % 10);
        }
        length += many;
    }

    String text(Charset charset) {
        return new String(bytes, 0, length, charset);
    }

    private void room(int more) {
        if (bytes.length - length < more) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + more));
        }
    }
}
