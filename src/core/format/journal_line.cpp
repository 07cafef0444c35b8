#include "core/format/journal_line.h"

#include <fmt/format.h>
#include <zlib.h>

#include <chrono>

#include "core/format/object_json.h"
#include "core/format/objects/points.h"

namespace erdwerk::format {

using document::Document;
using nlohmann::json;

namespace {

constexpr std::string_view before = "{\"crc\":\"";
constexpr std::string_view after = "\",";
constexpr std::size_t digits = 8;

std::string checksum(std::string_view text) {
    const auto* bytes = reinterpret_cast<const Bytef*>(text.data());  // NOLINT: zlib's own type for bytes
    return fmt::format("{:08x}", ::crc32_z(0, bytes, text.size()));
}

std::string now() {
    const auto time = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::tm utc{};
    ::gmtime_r(&time, &utc);
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}:{:02}Z", utc.tm_year + 1900, utc.tm_mon + 1,
                       utc.tm_mday, utc.tm_hour, utc.tm_min, utc.tm_sec);
}

/// A set of points is written as the blocks that differ; other objects whole but for what is large and the
/// same.
json objectChange(const objects::Object& object, const objects::Object* old) {
    const auto* points = object.payload.as<objects::Points>();
    const auto* was = old == nullptr ? nullptr : old->payload.as<objects::Points>();
    if (points == nullptr || was == nullptr) return toJson(object, {}, old);
    json j{{"kind", "point-blocks"},
           {"id", object.id.value},
           {"name", object.name},
           {"group", object.group.value},
           {"count", points->set.blocks().size()}};
    json blocks = json::object();
    for (std::size_t i = 0; i < points->set.blocks().size(); ++i) {
        if (i < was->set.blocks().size() && was->set.blocks()[i] == points->set.blocks()[i]) continue;
        json block = json::array();
        for (const auto& p : *points->set.blocks()[i]) block.push_back(toJson(p));
        blocks[std::to_string(i)] = std::move(block);
    }
    j["blocks"] = std::move(blocks);
    if (points->tie) j["tie"] = points->tie == was->tie ? json("kept") : tieJson(*points->tie);
    return j;
}

Result<objects::Object> blocksFromJson(const json& j, const Document& document) {
    const ObjectId id{j.at("id").get<std::uint64_t>()};
    const auto* old = document.get<objects::Points>(id);
    if (old == nullptr) return badInput("it changes points that are not there");
    auto blocks = old->set.blocks();
    const auto count = j.at("count").get<std::size_t>();
    if (count > blocks.size() + j.at("blocks").size()) return badInput("a block of points is missing");
    blocks.resize(count);
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
        if (!block) return badInput("a block of points is missing");
    objects::Points points{survey::PointSet::fromBlocks(std::move(blocks))};
    if (j.contains("tie"))
        points.tie = j.at("tie").is_string()
                         ? old->tie
                         : std::make_shared<const objects::StationTie>(tieFromJson(j.at("tie")));
    return objects::Object{id, j.at("name"), {j.at("group").get<std::uint64_t>()}, std::move(points)};
}

}  // namespace

std::string sealed(const json& content) {
    const std::string rest = content.dump(-1, ' ', false, json::error_handler_t::replace).substr(1);
    return std::string(before) + checksum(rest) + std::string(after) + rest + "\n";
}

std::optional<json> unsealed(std::string_view line) {
    const std::size_t head = before.size() + digits + after.size();
    if (line.size() <= head || line.substr(0, before.size()) != before ||
        line.substr(before.size() + digits, after.size()) != after)
        return std::nullopt;
    const std::string_view rest = line.substr(head);
    if (checksum(rest) != line.substr(before.size(), digits)) return std::nullopt;
    json content = json::parse("{" + std::string(rest), nullptr, false);
    if (content.is_discarded() || !content.is_object()) return std::nullopt;
    return content;
}

json changeToJson(const std::string& what, std::uint64_t number, const Document& old, const Document& next) {
    const document::Change change = document::difference(old, next);
    json line{{"change", number},         {"when", now()},          {"what", what}, {"set", json::array()},
              {"removed", json::array()}, {"nextId", next.nextId()}};
    for (const auto id : change.changed)
        line["set"].push_back(objectChange(*next.find(id), old.find(id).get()));
    for (const auto id : change.removed) line["removed"].push_back(id.value);
    if (change.settings) line["settings"] = toJson(next.settings());
    if (change.shown) line["shown"] = toJson(next.shown());
    return line;
}

Result<Document> applyChange(const json& line, const Document& document) {
    try {
        Document out = document;
        for (const json& j : line.at("set")) {
            const ObjectId id{j.at("id").get<std::uint64_t>()};
            auto object = j.at("kind") == "point-blocks" ? blocksFromJson(j, out)
                                                         : objectFromJson(j, {}, out.find(id).get());
            if (!object) return tl::unexpected(object.error());
            out = out.with(std::move(*object));
        }
        for (const json& id : line.at("removed")) out = out.withoutOnly({id.get<std::uint64_t>()});
        if (line.contains("settings")) {
            auto settings = settingsFromJson(line.at("settings"));
            if (!settings) return tl::unexpected(settings.error());
            out = out.withSettings(std::move(*settings));
        }
        if (line.contains("shown")) {
            auto shown = shownFromJson(line.at("shown"));
            if (!shown) return tl::unexpected(shown.error());
            out = out.withShown(std::move(*shown));
        }
        return out.withNextId(line.value("nextId", std::uint64_t{1}));
    } catch (const std::exception& e) {
        return badInput(e.what());
    }
}

}  // namespace erdwerk::format
