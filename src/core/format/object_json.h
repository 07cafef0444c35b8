#pragma once
// Objects and settings as JSON: the exact definitions in the project file and in the journal.

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/document/document.h"
#include "core/survey/points.h"

namespace erdwerk::format {

/// Files that an object names are written relative to `folder` when they lie in it or below. With `before`,
/// what is large and is shared with it (triangles, classes) is left out; reading needs it then, too.
nlohmann::json toJson(const objects::Object& object, const std::string& folder = {},
                      const objects::Object* before = nullptr);
nlohmann::json toJson(const document::Settings& settings);
nlohmann::json toJson(const document::Shown& shown);
nlohmann::json toJson(const survey::SurveyPoint& point);

/// BadInput names the object and what is wrong with it.
/// A file that an object names is read; when it is not there the object says so and keeps the name. Relative
/// names are taken from `folder`.
Result<objects::Object> objectFromJson(const nlohmann::json& json, const std::string& folder = {},
                                       const objects::Object* before = nullptr);
Result<document::Settings> settingsFromJson(const nlohmann::json& json);
Result<document::Shown> shownFromJson(const nlohmann::json& json);
/// Files of the first version say it in the object itself.
bool wasHidden(const nlohmann::json& object);
Result<survey::SurveyPoint> pointFromJson(const nlohmann::json& json);

}  // namespace erdwerk::format
