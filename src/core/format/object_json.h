#pragma once
// Objects and settings as JSON: the exact definitions in the project file and in the journal.

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::format {

nlohmann::json toJson(const document::Object& object);
nlohmann::json toJson(const document::Settings& settings);
nlohmann::json toJson(const survey::SurveyPoint& point);

/// BadInput names the object and what is wrong with it.
Result<document::Object> objectFromJson(const nlohmann::json& json);
Result<document::Settings> settingsFromJson(const nlohmann::json& json);
Result<survey::SurveyPoint> pointFromJson(const nlohmann::json& json);

}  // namespace erdwerk::format
