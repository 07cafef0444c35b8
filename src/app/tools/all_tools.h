#pragma once
// Every tool: how it is called, shown and made. A new tool is a file with such a declaration, and its line in
// the list of all_tools.cpp.

#include <functional>
#include <memory>
#include <optional>
#include <variant>
#include <vector>

#include "app/base/actions.h"
#include "app/base/theme.h"
#include "app/plan/tool.h"

namespace erdwerk::app::tools {

/// Why a tool cannot run now; empty: it can.
using WhyNot = QString (*)(const Session&);

struct ToolDeclaration {
    QString id = {};
    QString text = {};
    QString help = {};
    theme::Drawing icon = {};
    QString key = {};  ///< a letter of its name, in its stage
    WhyNot whyNot = nullptr;
    /// The kinds of object that it is offered for, see isOneOf; none: it needs no object first.
    bool (*suits)(const objects::Object&) = nullptr;
    std::function<std::unique_ptr<Tool>(Session&)> make = {};
};

/// One entry of the rack: a tool, or a command of the window by its id.
struct RackEntry {
    std::optional<Stage> stage = Stage::Field;  ///< none: on every rack
    QString section;                            ///< the heading it stands under
    std::variant<ToolDeclaration, QString> entry;
};

/// All of them, in the order of the rack.
const std::vector<RackEntry>& rack();

// ---- what tools need

QString anOpenProject(const Session& session);
QString aLine(const Session& session);
QString aParcel(const Session& session);
QString aSurface(const Session& session);
QString aSurfaceAndALine(const Session& session);
QString aCloud(const Session& session);
QString denseHeights(const Session& session);

inline QString tr(const char* text) {
    return QObject::tr(text);
}

}  // namespace erdwerk::app::tools
