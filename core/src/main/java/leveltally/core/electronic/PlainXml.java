package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Writes XML whose texts have been put into plain letters before, element by element. A library's writer looks up each name and
 * each letter and takes several times as long; there may be many thousand transfers in a file.
 */
final class PlainXml {
    private static final int AT_ONCE = 1 << 13;

    private final OutputStream out;
    private final byte[] some = new byte[AT_ONCE];
    private final Deque<String> open = new ArrayDeque<>();
    private int length;

    PlainXml(OutputStream out) throws IOException {
        this.out = out;
        letters("<?xml version=\"1.0\" encoding=\"UTF-8\"?>");
    }

    PlainXml begin(String name) throws IOException {
        letter('<');
        letters(name);
        letter('>');
        open.push(name);
        return this;
    }

    PlainXml begin(String name, String attribute, String value) throws IOException {
        letter('<');
        letters(name);
        letter(' ');
        letters(attribute);
        letters("=\"");
        text(value);
        letters("\">");
        open.push(name);
        return this;
    }

    PlainXml end() throws IOException {
        letters("</");
        letters(open.pop());
        letter('>');
        return this;
    }

    /** A whole element of this text. */
    PlainXml element(String name, String text) throws IOException {
        begin(name);
        text(text);
        return end();
    }

    /** @throws IllegalArgumentException when a letter of it is none of plain ASCII */
    PlainXml text(String text) throws IOException {
        for (int i = 0; i < text.length(); i++) {
            char one = text.charAt(i);
            if (one < ' ' || one > '~') {
                throw new IllegalArgumentException("“" + text + "” is not in plain letters");
            }
            if (one == '&' || one == '<' || one == '>' || one == '"') {
                letters(text.substring(0, i));
                letters("&#" + (int) one + ";");
                return text(text.substring(i + 1));
            }
        }
        letters(text);
        return this;
    }

    /** Ends what is still open; the stream it was written to stays open. */
    void finish() throws IOException {
        while (!open.isEmpty()) {
            end();
        }
        handOn();
        out.flush();
    }

    private void letters(String plain) throws IOException {
        // copied whole, not letter by letter
        byte[] letters = plain.getBytes(StandardCharsets.ISO_8859_1);
        if (length + letters.length > AT_ONCE) {
            handOn();
        }
        if (letters.length > AT_ONCE) {
            out.write(letters);
        } else {
            System.arraycopy(letters, 0, some, length, letters.length);
            length += letters.length;
        }
    }

    private void letter(char plain) throws IOException {
        if (length == AT_ONCE) {
            handOn();
        }
        some[length++] = (byte) plain;
    }

    private void handOn() throws IOException {
        out.write(some, 0, length);
        length = 0;
    }
}
