#include "core/format/project_file.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <random>

#include "core/format/object_json.h"
#include "core/format/output.h"
#include "core/format/project_layers.h"

namespace erdwerk::format {

using derive::Derived;
using document::Document;
using nlohmann::json;

namespace {

/// The absolute folder of a file.
std::string folderOf(const std::string& path) {
    std::error_code ignored;
    return std::filesystem::absolute(path, ignored).parent_path().string();
}

std::string freshStamp() {
    std::random_device device;
    std::string out;
    for (int i = 0; i < 4; ++i) {
        static constexpr char digits[] = "0123456789abcdef";
        std::uint32_t word = device();
        for (int k = 0; k < 8; ++k, word >>= 4) out += digits[word & 15];
    }
    return out;
}

/// Our own tables, registered as GeoPackage attributes so that the file stays valid.
void writeOwnTables(SQLite::Database& db, const Document& document, const SaveMark& mark,
                    const std::string& folder) {
    db.exec(
        "CREATE TABLE erdwerk_project (id INTEGER PRIMARY KEY, version INTEGER NOT NULL, stamp TEXT NOT NULL,"
        " next_id INTEGER NOT NULL, settings TEXT NOT NULL, follows TEXT NOT NULL, held_changes INTEGER NOT "
        "NULL)");
    db.exec(
        "CREATE TABLE erdwerk_objects (id INTEGER PRIMARY KEY, kind TEXT NOT NULL, name TEXT NOT NULL, "
        "definition TEXT NOT NULL)");
    for (const char* table : {"erdwerk_project", "erdwerk_objects"}) {
        SQLite::Statement contents(
            db, "INSERT INTO gpkg_contents (table_name, data_type, identifier) VALUES (?, 'attributes', ?)");
        contents.bind(1, table);
        contents.bind(2, table);
        contents.exec();
    }
    SQLite::Statement project(db, "INSERT INTO erdwerk_project VALUES (1, ?, ?, ?, ?, ?, ?)");
    project.bind(1, projectVersion);
    project.bind(2, mark.stamp);
    project.bind(3, static_cast<std::int64_t>(document.nextId()));
    json settings = toJson(document.settings());
    settings["shown"] = toJson(document.shown());
    project.bind(4, settings.dump());
    project.bind(5, mark.follows);
    project.bind(6, static_cast<std::int64_t>(mark.heldChanges));
    project.exec();
    SQLite::Statement insert(db, "INSERT INTO erdwerk_objects VALUES (?, ?, ?, ?)");
    for (const auto& [id, object] : document.objects()) {
        insert.bind(1, static_cast<std::int64_t>(id.value));
        insert.bind(2, std::string(kindName(object->payload)));
        insert.bind(3, object->name);
        insert.bind(4, toJson(*object, folder).dump(-1, ' ', false, json::error_handler_t::replace));
        insert.exec();
        insert.reset();
    }
}

/// A GeoPackage needs at least one table of content; the vector driver only makes one when there are layers.
std::vector<VectorLayer> layersOrFrame(const Derived& derived, bool rules) {
    auto layers = projectLayers(derived, rules);
    if (layers.empty())
        layers.push_back(
            {"survey_points", Shape::PointZ, {{"number"}, {"code"}, {"note"}, {"point_set"}}, {}});
    return layers;
}

}  // namespace

Result<void> exportGeoPackage(const std::string& path, const Derived& derived) {
    return writeVectorFile(path, layersOrFrame(derived, true));
}

Result<std::string> saveProject(const std::string& path, const Derived& derived, const SaveMark& follows) {
    SaveMark mark = follows;
    mark.stamp = freshStamp();
    removeLeftovers(path);
    auto done = replaceFile(path, [&](const std::string& temporary) -> Result<void> {
        const std::string package = temporary + ".gpkg";
        std::error_code ignored;
        if (auto written = writeVectorFile(package, layersOrFrame(derived, false)); !written) {
            std::filesystem::remove(package, ignored);
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(written.error().text), path);
        }
        try {
            SQLite::Database db(package, SQLite::OPEN_READWRITE);
            SQLite::Transaction transaction(db);
            writeOwnTables(db, derived.document, mark, folderOf(path));
            transaction.commit();
        } catch (const std::exception& e) {
            std::filesystem::remove(package, ignored);
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(e.what()), path);
        }
        std::error_code error;
        std::filesystem::rename(package, temporary, error);
        if (error) return fail(ErrorCode::Io, "cannot be written: " + error.message(), path);
        return {};
    });
    if (!done) return tl::unexpected(done.error());
    return mark.stamp;
}

Result<OpenedProject> openProjectWithJournal(const std::string& path, bool take) {
    auto out = openProject(path);
    if (!out) return out;
    auto replayed = replay(journalPath(canonicalPath(path)), out->mark, out->document);
    if (replayed.kind != Replayed::Kind::Fits) return out;
    out->unsaved = replayed.documents.size();
    out->journalProblem = std::move(replayed.problem);
    if (out->unsaved == 0) return out;
    out->lastUnsaved = std::move(replayed.what.back());
    if (take) out->document = std::move(replayed.documents.back());
    return out;
}

Result<OpenedProject> openProject(const std::string& path) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored))
        return fail(ErrorCode::Io, "No such file or directory", path);
    try {
        SQLite::Database db(path, SQLite::OPEN_READONLY);
        if (!db.tableExists("erdwerk_project")) return badInput("is not an Erdwerk project", path, 1);
        SQLite::Statement project(db, "SELECT * FROM erdwerk_project");
        if (!project.executeStep()) return badInput("the project table is empty", path);
        const int version = project.getColumn("version").getInt();
        if (version > projectVersion)
            return fail(ErrorCode::Unsupported,
                        "was made by a newer version of Erdwerk (format " + std::to_string(version) +
                            "); update to open it",
                        path);
        OpenedProject out;
        out.mark.stamp = project.getColumn("stamp").getString();
        if (project.getColumnCount() > 5) {  // older files do not say
            out.mark.follows = project.getColumn("follows").getString();
            out.mark.heldChanges = static_cast<std::uint64_t>(project.getColumn("held_changes").getInt64());
        }
        const json written = json::parse(project.getColumn("settings").getString());
        auto settings = settingsFromJson(written);
        if (!settings) return badInput(settings.error().text, path);
        out.document = out.document.withSettings(std::move(*settings))
                           .withNextId(static_cast<std::uint64_t>(project.getColumn("next_id").getInt64()));
        document::Shown shown;
        if (written.contains("shown")) {
            auto read = shownFromJson(written.at("shown"));
            if (!read) return badInput(read.error().text, path);
            shown = std::move(*read);
        }
        SQLite::Statement objects(db, "SELECT id, definition FROM erdwerk_objects ORDER BY id");
        while (objects.executeStep()) {
            const json definition = json::parse(objects.getColumn(1).getString());
            auto object = objectFromJson(definition, folderOf(path));
            if (!object) return badInput(object.error().text, path);
            if (wasHidden(definition)) shown.hidden.insert(object->id);
            out.document = out.document.with(std::move(*object));
        }
        out.document = out.document.withShown(std::move(shown));
        return out;
    } catch (const json::exception& e) {
        return badInput(std::string("is damaged: ") + e.what(), path);
    } catch (const std::exception& e) {
        const std::string reason = plainReason(e.what());
        return badInput(
            "is not an Erdwerk project or is damaged" + (reason == e.what() ? ": " + reason : std::string()),
            path, 1);
    }
}

}  // namespace erdwerk::format
