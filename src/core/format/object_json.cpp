#include "core/format/object_json.h"

#include <filesystem>

#include "core/format/objects/json_kind.h"
#include "core/objects/all.h"

namespace erdwerk::format {

using namespace objects;

double figure(const json& value) {
    if (!value.is_number()) throw std::runtime_error("'" + value.dump() + "' is not a figure");
    return value.get<double>();
}

std::uint64_t whole(const json& value) {
    if (!value.is_number_integer() || (!value.is_number_unsigned() && value.get<std::int64_t>() < 0))
        throw std::runtime_error("'" + value.dump() + "' is not a whole number from 0");
    return value.get<std::uint64_t>();
}

bool flag(const json& value) {
    if (!value.is_boolean()) throw std::runtime_error("'" + value.dump() + "' is neither true nor false");
    return value.get<bool>();
}

std::string word(const json& value) {
    if (!value.is_string()) throw std::runtime_error("'" + value.dump() + "' is not a text");
    return value.get<std::string>();
}

json toJson(const PlanPartsOff& off) {
    json names = json::array();
    for (const PlanPart part : off) names.push_back(planPartName(part));
    return names;
}

PlanPartsOff planPartsFromJson(const json& value) {
    if (!value.is_array()) throw std::runtime_error("the parts of a plan are no list");
    PlanPartsOff off;
    for (const json& name : value) {
        const auto part = planPartFrom(word(name));
        if (!part) throw std::runtime_error("unknown part of a plan '" + word(name) + "'");
        off.insert(*part);
    }
    return off;
}

ObjectId idFrom(const json& j, const char* key) {
    return {whole(j.at(key))};
}

std::string inFolder(const std::string& file, const std::string& folder) {
    if (folder.empty()) return file;
    const auto relative = std::filesystem::path(file).lexically_relative(folder);
    return relative.empty() || *relative.begin() == ".." ? file : relative.string();
}

std::string fromFolder(const std::string& file, const std::string& folder) {
    const std::filesystem::path path(file);
    if (path.is_absolute() && !std::filesystem::exists(path)) {
        // A project that was moved with its files beside it.
        const auto beside = std::filesystem::path(folder) / path.filename();
        if (!folder.empty() && std::filesystem::exists(beside)) return beside.string();
    }
    return path.is_absolute() || folder.empty() ? file : (std::filesystem::path(folder) / path).string();
}

json toJson(const survey::SurveyPoint& p) {
    json j = json::array({p.number, p.plan.x, p.plan.y, nullptr, p.code, p.note});
    if (p.height) j[3] = *p.height;
    return j;
}

Result<survey::SurveyPoint> pointFromJson(const json& j) {
    try {
        survey::SurveyPoint p{
            word(j.at(0)), {figure(j.at(1)), figure(j.at(2))}, std::nullopt, word(j.at(4)), word(j.at(5))};
        if (!j.at(3).is_null()) p.height = figure(j.at(3));
        return p;
    } catch (const std::exception& e) {
        return badInput(std::string("a point is damaged: ") + e.what());
    }
}

namespace {

template <class T>
const T* as(const Object* before) {
    return before == nullptr ? nullptr : before->payload.as<T>();
}

/// The kind of the list with this name reads it.
template <class... T>
Payload payloadFrom(KindList<T...>, const std::string& kind, const json& j, const std::string& folder,
                    const Object* before) {
    std::optional<Payload> out;
    const bool known =
        ((Kind<T>::name == kind && (out = Json<T>::read(j, {folder, as<T>(before)}), true)) || ...);
    if (!known) throw std::runtime_error("unknown kind '" + kind + "'");
    return *out;
}

}  // namespace

json toJson(const Object& object, const std::string& folder, const Object* before) {
    json j = visit<json>(object.payload, [&]<class T>(const T& p) {
        return Json<T>::write(p, {folder, as<T>(before)});
    });
    j["kind"] = kindName(object.payload);
    j["id"] = object.id.value;
    j["name"] = object.name;
    j["group"] = object.group.value;
    return j;
}

Result<Object> objectFromJson(const json& j, const std::string& folder, const Object* before) {
    std::string name = "an object";
    try {
        Object object{idFrom(j, "id"), word(j.at("name")), idFrom(j, "group"), Group{}};
        name = "'" + object.name + "'";
        if (!object.id) throw std::runtime_error("its id is 0");
        object.payload = payloadFrom(Kinds{}, word(j.at("kind")), j, folder, before);
        return object;
    } catch (const std::exception& e) {
        return badInput(name + " is damaged: " + e.what());
    }
}

}  // namespace erdwerk::format
