package awlsmith.server.tables;

import awlsmith.core.recipe.FileRef;
import awlsmith.server.problem.Refusal;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Files that steps work with, lookup tables and marks, over HTTP. */
@RestController
@RequestMapping("/api/tables")
class TableController {
    /** A cube of 129 on a side has some 60 MB; those in use have 33 or 65. */
    private static final int LARGEST = 64 << 20;

    private final Tables tables;

    TableController(Tables tables) {
        this.tables = tables;
    }

    /** @param file as recipes name it */
    record TableView(String name, String hash, String file) {
        static TableView of(FileRef file) {
            return new TableView(file.name(), file.hash(), file.toString());
        }
    }

    @GetMapping
    List<TableView> all() {
        return tables.all().stream().map(TableView::of).toList();
    }

    /** The file is the body of the request as it is. */
    @PutMapping
    TableView add(@RequestParam String name, HttpServletRequest request) throws IOException {
        byte[] content = request.getInputStream().readNBytes(LARGEST + 1);
        if (content.length > LARGEST) {
            throw new Refusal(Refusal.Kind.INVALID, "the file is larger than any table or mark");
        }
        return TableView.of(tables.add(name, content));
    }

    @DeleteMapping("/{hash}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String hash) {
        tables.all().stream()
                .filter(file -> file.hash().equals(hash))
                .findFirst()
                .ifPresentOrElse(tables::remove, () -> {
                    throw Refusal.unknown("this file");
                });
    }
}
