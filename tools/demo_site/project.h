#pragma once
// The demo project: the survey with everything that is made from it.

#include "core/document/document.h"
#include "demo_site/site.h"

namespace erdwerk::demo {

document::Document project(const Site& site);

}  // namespace erdwerk::demo
