package leveltally.server.mail;

import java.util.List;
import org.springframework.web.util.HtmlUtils;

/**
 * What a mail says, in plain words; it never asks for anything that can be done without signing in.
 *
 * @param sentences each a paragraph
 * @param facts lines of a short list, may be empty
 * @param linkText what the link is called
 * @param path the exact place in the application, such as {@code /approval/7}
 */
public record Letter(String subject, List<String> sentences, List<String> facts, String linkText, String path) {
    private static final int LONGEST_SUBJECT = 200;

    public Letter {
        // a line break would begin another header
        String oneLine = subject.replaceAll("[\\r\\n]+", " ");
        subject = oneLine.substring(0, Math.min(LONGEST_SUBJECT, oneLine.length()));
        sentences = List.copyOf(sentences);
        facts = List.copyOf(facts);
    }

    String text(String address, String name) {
        StringBuilder text = new StringBuilder("Hello " + name + ",\n\n");
        sentences.forEach(sentence -> text.append(sentence).append("\n\n"));
        facts.forEach(fact -> text.append("- ").append(fact).append('\n'));
        text.append(facts.isEmpty() ? "" : "\n")
                .append(linkText)
                .append(":\n")
                .append(address)
                .append(path);
        return text.append("\n\nNothing can be done from this mail; sign in to answer.\nLevel Tally\n")
                .toString();
    }

    /** Plain HTML: no style but what mail programs have, nothing fetched. */
    String html(String address, String name) {
        StringBuilder html = new StringBuilder("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
                .append(escape(subject))
                .append("</title></head><body style=\"font-family:sans-serif;max-width:40em\"><p>Hello ")
                .append(escape(name))
                .append(",</p>");
        sentences.forEach(
                sentence -> html.append("<p>").append(escape(sentence)).append("</p>"));
        if (!facts.isEmpty()) {
            html.append("<ul>");
            facts.forEach(fact -> html.append("<li>").append(escape(fact)).append("</li>"));
            html.append("</ul>");
        }
        return html.append("<p><a href=\"")
                .append(escape(address + path))
                .append("\">")
                .append(escape(linkText))
                .append(
                        "</a></p><p>Nothing can be done from this mail; sign in to answer.<br>Level Tally</p></body></html>")
                .toString();
    }

    private static String escape(String text) {
        return HtmlUtils.htmlEscape(text, "UTF-8");
    }
}
