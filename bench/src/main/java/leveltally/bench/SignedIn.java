package leveltally.bench;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** The clerk of the bench at the application's door and behind it. */
final class SignedIn {
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    final String base;

    SignedIn(ConfigurableApplicationContext context) throws IOException, InterruptedException {
        base = "http://127.0.0.1:"
                + ((WebServerApplicationContext) context).getWebServer().getPort();
        get("/api/session/door");
        String token = cookies().stream()
                .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow()
                .getValue();
        http.send(
                HttpRequest.newBuilder(URI.create(base + "/api/session"))
                        .header("Content-Type", "application/json")
                        .header("X-XSRF-TOKEN", token)
                        .POST(HttpRequest.BodyPublishers.ofString(
                                "{\"signIn\":\"clerk\",\"password\":\"" + BenchCompany.PASSWORD + "\"}"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    List<HttpCookie> cookies() {
        return cookies.getCookieStore().getCookies();
    }

    /** How many bytes stand at an address. */
    int get(String path) throws IOException, InterruptedException {
        HttpResponse<byte[]> answer = http.send(
                HttpRequest.newBuilder(URI.create(base + path)).build(), HttpResponse.BodyHandlers.ofByteArray());
        if (answer.statusCode() != 200) {
            throw new IllegalStateException(path + ": " + answer.statusCode() + " " + new String(answer.body()));
        }
        return answer.body().length;
    }
}
