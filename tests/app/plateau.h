#pragma once
// A made-up plateau as a cloud, opened in the real window.

#include "core/format/las.h"
#include "window_test.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

class PlateauTest : public WindowTest {
protected:
    /// A plateau: level at 10, from x = 30 down 1 in 1 to level at 0. Points every half unit.
    void plateau() {
        std::vector<Vec3> places;
        for (int y = 0; y <= 120; ++y)
            for (int x = 0; x <= 120; ++x)
                places.push_back({x * 0.5, y * 0.5, std::clamp(40 - x * 0.5, 0.0, 10.0)});
        ASSERT_TRUE(format::writeLas(folder / "plateau.las", survey::cloudFrom(places)));
        window->session().project().startNew({});
        window->imports().dense(QString::fromStdString(folder / "plateau.las"), true);
        window->session().waitForResults();
        window->settle();
        cloud = named<objects::Cloud>("plateau");
    }
    /// Waits until a crease tool has its field.
    template <class T>
    T* crease() {
        auto* tool = qobject_cast<T*>(window->tool());
        for (int i = 0; tool != nullptr && tool->working() && i < 2000; ++i) {
            QCoreApplication::processEvents();
            QTest::qWait(5);
        }
        QCoreApplication::processEvents();
        return tool;
    }
    ObjectId cloud;
};

}  // namespace erdwerk::app
