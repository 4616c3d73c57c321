package leveltally.server;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import leveltally.server.people.DemoPassword;

/** Somebody's browser, without the screen. */
final class Http {
    private final CookieManager cookies = new CookieManager();
    private final HttpClient client =
            HttpClient.newBuilder().cookieHandler(cookies).build();

    private final String address;

    private Http(String address) {
        this.address = address;
    }

    record Answer(int status, String body) {}

    static Http nobody() {
        return nobody(App.address());
    }

    static Http nobody(String address) {
        return new Http(address);
    }

    static Http signedIn(String name) {
        return signedIn(name, DemoPassword.VALUE);
    }

    static Http signedIn(String name, String password) {
        return signedIn(App.address(), name, password);
    }

    static Http signedIn(String address, String name, String password) {
        Http http = nobody(address);
        http.get("/api/session/door");
        Answer in = http.post("/api/session", "{\"signIn\":\"" + name + "\",\"password\":\"" + password + "\"}");
        if (in.status() != 200) {
            throw new IllegalStateException(in.body());
        }
        http.get("/api/session");
        return http;
    }

    Answer get(String path) {
        return send(request(path).GET());
    }

    Answer get(String path, String accept) {
        return send(request(path).header("Accept", accept).GET());
    }

    Answer post(String path, String json) {
        return send(request(path)
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofString(json)));
    }

    /** Sends files as a form does. */
    Answer upload(String path, byte[]... files) {
        String edge = "edge-of-a-part";
        java.io.ByteArrayOutputStream body = new java.io.ByteArrayOutputStream();
        for (byte[] file : files) {
            body.writeBytes(
                    ("--" + edge + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"sent.csv\"\r\n"
                                    + "Content-Type: application/octet-stream\r\n\r\n")
                            .getBytes(java.nio.charset.StandardCharsets.UTF_8));
            body.writeBytes(file);
            body.writeBytes("\r\n".getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
        body.writeBytes(("--" + edge + "--\r\n").getBytes(java.nio.charset.StandardCharsets.UTF_8));
        return send(request(path)
                .header("Content-Type", "multipart/form-data; boundary=" + edge)
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray())));
    }

    Answer postWithoutToken(String path, String json) {
        return send(request(path)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json)));
    }

    private String token() {
        return cookies.getCookieStore().getCookies().stream()
                .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                .map(java.net.HttpCookie::getValue)
                .findFirst()
                .orElse("");
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create(address + path));
    }

    private Answer send(HttpRequest.Builder request) {
        try {
            HttpResponse<String> response = client.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return new Answer(response.statusCode(), response.body());
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }
}
