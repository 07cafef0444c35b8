#include "core/format/journal.h"

#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/format/object_json.h"
#include "core/format/output.h"

namespace erdwerk::format {

using document::Document;
using nlohmann::json;

std::string journalPath(const std::string& projectPath) {
    return projectPath + "-journal.jsonl";
}

struct Journal::File {
    std::string path;
    std::FILE* handle = nullptr;
    File(std::string where, std::FILE* opened) : path(std::move(where)), handle(opened) {}
    File(const File&) = delete;
    File& operator=(const File&) = delete;
    ~File() {
        if (handle != nullptr) std::fclose(handle);
    }
};

Journal::Journal(std::unique_ptr<File> file) : file_(std::move(file)) {}
Journal::Journal(Journal&&) noexcept = default;
Journal& Journal::operator=(Journal&&) noexcept = default;
Journal::~Journal() = default;

namespace {

Result<void> writeLine(std::FILE* file, const json& line, const std::string& path) {
    const std::string text = line.dump(-1, ' ', false, json::error_handler_t::replace) + "\n";
    if (std::fwrite(text.data(), 1, text.size(), file) != text.size() || std::fflush(file) != 0 ||
        ::fdatasync(::fileno(file)) != 0)
        return fail(ErrorCode::Io, std::string("the journal cannot be written: ") + std::strerror(errno),
                    path);  // NOLINT(concurrency-mt-unsafe)
    return {};
}

Result<std::FILE*> openFile(const std::string& path, const char* mode) {
    std::FILE* file = std::fopen(path.c_str(), mode);
    if (file == nullptr)
        return fail(ErrorCode::Io, std::string("the journal cannot be opened: ") + std::strerror(errno),
                    path);  // NOLINT(concurrency-mt-unsafe)
    return file;
}

/// A set of points is written as the blocks that differ; all other objects whole.
json objectChange(const document::Object& object, const document::Object* before) {
    const auto* points = std::get_if<document::Points>(&object.payload);
    const auto* old = before == nullptr ? nullptr : std::get_if<document::Points>(&before->payload);
    if (points == nullptr || old == nullptr) return toJson(object);
    json j{{"kind", "point-blocks"},
           {"id", object.id.value},
           {"name", object.name},
           {"group", object.group.value},
           {"count", points->set.blocks().size()}};
    json blocks = json::object();
    for (std::size_t i = 0; i < points->set.blocks().size(); ++i) {
        if (i < old->set.blocks().size() && old->set.blocks()[i] == points->set.blocks()[i]) continue;
        json block = json::array();
        for (const auto& p : *points->set.blocks()[i]) block.push_back(toJson(p));
        blocks[std::to_string(i)] = std::move(block);
    }
    j["blocks"] = std::move(blocks);
    return j;
}

Result<document::Object> blocksFromJson(const json& j, const Document& document) {
    const ObjectId id{j.at("id").get<std::uint64_t>()};
    const auto* old = document.get<document::Points>(id);
    if (old == nullptr) return badInput("the journal changes points that are not there");
    auto blocks = old->set.blocks();
    blocks.resize(j.at("count").get<std::size_t>());
    for (const auto& [key, block] : j.at("blocks").items()) {
        std::vector<survey::SurveyPoint> points;
        for (const json& p : block) {
            auto point = pointFromJson(p);
            if (!point) return tl::unexpected(point.error());
            points.push_back(std::move(*point));
        }
        blocks.at(std::stoul(key)) = std::make_shared<const survey::PointSet::Block>(std::move(points));
    }
    for (const auto& block : blocks)
        if (!block) return badInput("the journal lacks a block of points");
    return document::Object{id,
                            j.at("name"),
                            {j.at("group").get<std::uint64_t>()},
                            document::Points{survey::PointSet::fromBlocks(std::move(blocks))}};
}

Result<Document> applyLine(const json& line, Document document) {
    for (const json& j : line.at("set")) {
        auto object = j.at("kind") == "point-blocks" ? blocksFromJson(j, document) : objectFromJson(j);
        if (!object) return tl::unexpected(object.error());
        document = document.with(std::move(*object));
    }
    for (const json& id : line.at("removed")) document = document.withoutOnly({id.get<std::uint64_t>()});
    if (line.contains("settings")) {
        auto settings = settingsFromJson(line.at("settings"));
        if (!settings) return tl::unexpected(settings.error());
        document = document.withSettings(std::move(*settings));
    }
    return document;
}

}  // namespace

Result<Journal> Journal::start(const std::string& path, const std::string& stamp) {
    auto handle = openFile(path, "wb");
    if (!handle) return tl::unexpected(handle.error());
    auto file = std::make_unique<File>(path, *handle);
    if (auto done = writeLine(file->handle, {{"erdwerk-journal", 1}, {"continues", stamp}}, path); !done)
        return tl::unexpected(done.error());
    return Journal(std::move(file));
}

Result<Journal> Journal::resume(const std::string& path) {
    auto handle = openFile(path, "ab");
    if (!handle) return tl::unexpected(handle.error());
    // Whatever a crash left half-written is ended, so that the next line stands alone.
    auto file = std::make_unique<File>(path, *handle);
    std::fputc('\n', file->handle);
    return Journal(std::move(file));
}

Result<void> Journal::append(const std::string& what, const Document& before, const Document& after) {
    const document::Change change = document::difference(before, after);
    if (change.empty()) return {};
    json line{{"what", what}, {"set", json::array()}, {"removed", json::array()}};
    for (const auto id : change.changed)
        line["set"].push_back(objectChange(*after.find(id), before.find(id).get()));
    for (const auto id : change.removed) line["removed"].push_back(id.value);
    if (change.settings) line["settings"] = toJson(after.settings());
    return writeLine(file_->handle, line, file_->path);
}

void Journal::remove() {
    std::error_code ignored;
    if (file_) std::filesystem::remove(file_->path, ignored);
    file_.reset();
}

Result<Replayed> replay(const std::string& path, const std::string& stamp, Document document) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored))
        return fail(ErrorCode::NotFound, "there is no journal", path);
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    Replayed out{std::move(document), 0, {}};
    long number = 0;
    for (std::size_t from = 0; from < text->size();) {
        const std::size_t end = text->find('\n', from);
        const std::string line = text->substr(from, end == std::string::npos ? end : end - from);
        from = end == std::string::npos ? text->size() : end + 1;
        ++number;
        const json parsed = json::parse(line, nullptr, false);
        if (number == 1) {
            if (parsed.is_discarded() || !parsed.is_object() || parsed.value("continues", "") != stamp)
                return fail(ErrorCode::NotFound, "the journal belongs to another save", path, 1);
            continue;
        }
        if (parsed.is_discarded() || !parsed.is_object()) continue;
        try {
            auto next = applyLine(parsed, out.document);
            if (!next) return badInput(next.error().text, path, number);
            out.document = std::move(*next);
            out.last = parsed.value("what", "");
            ++out.changes;
        } catch (const std::exception& e) {
            return badInput(std::string("the journal is damaged: ") + e.what(), path, number);
        }
    }
    return out;
}

}  // namespace erdwerk::format
