// What the 3D view shows: surfaces, clouds, lines and a draped backdrop, on their way to the graphics card.

#include <cmath>

#include "app/base/theme.h"
#include "app/plan/dense_layers.h"
#include "app/scene/scene_view.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

namespace {

/// Points of one cloud that are drawn at most: more than a screen can tell apart.
constexpr std::size_t pointBudget = 700'000;

}  // namespace

void SceneView::uploadSurfaces() {
    const auto& derived = session_.derived();
    std::erase_if(surfaces_, [&](const auto& entry) { return derived.surfaces.count(entry.first) == 0; });
    for (const auto& [id, result] : derived.surfaces) {
        if (!result->locator) {
            surfaces_.erase(id);
            continue;
        }
        auto& mesh = surfaces_[id];
        if (mesh && mesh->made == result) continue;
        const auto& tin = result->locator->tin();
        mesh = std::make_unique<Mesh>();
        mesh->made = result;
        std::vector<float> places;
        places.reserve(3 * tin.vertexCount());
        for (const Vec3& v : tin.vertices()) {
            const QVector3D p = local(v.plan(), v.z);
            places.insert(places.end(), {p.x(), p.y(), p.z()});
        }
        mesh->array = std::make_unique<QOpenGLVertexArrayObject>();
        mesh->array->create();
        const QOpenGLVertexArrayObject::Binder binder(mesh->array.get());
        mesh->vertices.create();
        mesh->vertices.bind();
        mesh->vertices.allocate(places.data(), static_cast<int>(places.size() * sizeof(float)));
        mesh->indices.create();
        mesh->indices.bind();
        mesh->indices.allocate(tin.corners().data(),
                               static_cast<int>(tin.corners().size() * sizeof(std::uint32_t)));
        glEnableVertexAttribArray(0);
        glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, 0, nullptr);
        mesh->count = static_cast<int>(tin.corners().size());
    }
}

void SceneView::uploadClouds() {
    const auto& derived = session_.derived();
    std::erase_if(clouds_, [&](const auto& entry) { return derived.clouds.count(entry.first) == 0; });
    for (const auto& [id, tiles] : derived.clouds) {
        const auto object = derived.document.find(id);
        const auto* cloud = derived.document.get<objects::Cloud>(id);
        if (!object || cloud == nullptr || !cloud->cloud) continue;
        const Vec2 centre{static_cast<double>(target_.x()) + origin_.x,
                          static_cast<double>(target_.y()) + origin_.y};
        const auto square = [&](double half) {
            geometry::Box box;
            box.add(Vec2{centre.x - half, centre.y - half});
            box.add(Vec2{centre.x + half, centre.y + half});
            return box;
        };
        auto& points = clouds_[id];
        // The window is kept while it holds what is looked at and is not much too wide for it.
        const geometry::Box seen = square(distance_ * 0.7);
        const bool holds =
            points && points->made == object && points->window.contains({seen.minX, seen.minY}) &&
            points->window.contains({seen.maxX, seen.maxY}) && points->window.width() < 4 * seen.width();
        if (holds) continue;
        points = std::make_unique<CloudPoints>();
        points->made = object;
        points->window = square(distance_ * 1.4);
        struct Vertex {
            float x, y, z;
            QRgb tint;
        };
        std::vector<Vertex> vertices;
        const survey::CloudPart part(*cloud->cloud, cloud->filter);
        tiles->sample(points->window, pointBudget, [&](std::uint32_t i) {
            if (!part.has(i)) return;
            const Vec3 p = cloud->cloud->place(i);
            const QVector3D q = local(p.plan(), p.z);
            // Bytes red, green, blue, alpha, as the shader reads them.
            const QRgb c = cloudColour(*cloud, i);
            vertices.push_back({q.x(), q.y(), q.z(),
                                0xff000000U | static_cast<QRgb>(qBlue(c) << 16) |
                                    static_cast<QRgb>(qGreen(c) << 8) | static_cast<QRgb>(qRed(c))});
        });
        const double area = points->window.width() * points->window.height();
        points->spacing =
            std::max(tiles->cloud().spacing(),
                     std::sqrt(area / static_cast<double>(std::max<std::size_t>(1, vertices.size()))));
        points->count = static_cast<int>(vertices.size());
        points->array = std::make_unique<QOpenGLVertexArrayObject>();
        points->array->create();
        const QOpenGLVertexArrayObject::Binder binder(points->array.get());
        points->buffer.create();
        points->buffer.bind();
        points->buffer.allocate(vertices.data(), static_cast<int>(vertices.size() * sizeof(Vertex)));
        glEnableVertexAttribArray(0);
        glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, sizeof(Vertex), nullptr);
        glEnableVertexAttribArray(1);
        glVertexAttribPointer(1, 4, GL_UNSIGNED_BYTE, GL_TRUE, sizeof(Vertex),
                              reinterpret_cast<const void*>(offsetof(Vertex, tint)));
    }
}

void SceneView::drawClouds(const QMatrix4x4& m) {
    glEnable(GL_PROGRAM_POINT_SIZE);
    pointProgram_->bind();
    pointProgram_->setUniformValue("matrix", m);
    pointProgram_->setUniformValue("exaggeration", static_cast<float>(exaggeration_));
    for (auto& [id, points] : clouds_) {
        const auto object = session_.derived().document.find(id);
        if (!object || points->count == 0 || session_.derived().document.hidden(*object)) continue;
        // As wide as the points stand apart, in pixels at unit depth.
        pointProgram_->setUniformValue(
            "size", static_cast<float>(points->spacing * 1.3 * height() * devicePixelRatioF() /
                                       (2 * std::tan(halfAngle))));
        const QOpenGLVertexArrayObject::Binder binder(points->array.get());
        glDrawArrays(GL_POINTS, 0, points->count);
    }
    pointProgram_->release();
}

void SceneView::bindBackdrop() {
    const auto& document = session_.derived().document;
    std::shared_ptr<const objects::Picture> top;
    for (const ObjectId id : document.all<objects::Backdrop>()) {
        const auto* b = document.get<objects::Backdrop>(id);
        if (b->picture && b->visible && !document.hidden(*document.find(id))) top = b->picture;
    }
    if (top != backdropOf_) {
        backdropOf_ = top;
        backdrop_.reset();
        if (top) {
            const QImage image(top->rgb.data(), static_cast<int>(top->columns), static_cast<int>(top->rows),
                               static_cast<qsizetype>(3 * top->columns), QImage::Format_RGB888);
            backdrop_ = std::make_unique<QOpenGLTexture>(image.convertToFormat(QImage::Format_RGBA8888));
            backdrop_->setMinificationFilter(QOpenGLTexture::LinearMipMapLinear);
            backdrop_->setMagnificationFilter(QOpenGLTexture::Linear);
        }
    }
    surfaceProgram_->setUniformValue("draped", backdrop_ != nullptr);
    if (!backdrop_) return;
    // From local places to columns and rows: the picture's affine turned round.
    const auto& t = top->transform;
    const double d = t[1] * t[5] - t[2] * t[4];
    if (d == 0) return surfaceProgram_->setUniformValue("draped", false);
    const double dx = origin_.x - t[0];
    const double dy = origin_.y - t[3];
    const auto row = [&](double a, double b, double size) {
        return QVector3D(static_cast<float>(a / d / size), static_cast<float>(b / d / size),
                         static_cast<float>((a * dx + b * dy) / d / size));
    };
    surfaceProgram_->setUniformValue("across", row(t[5], -t[2], static_cast<double>(top->columns)));
    surfaceProgram_->setUniformValue("down", row(-t[4], t[1], static_cast<double>(top->rows)));
    backdrop_->bind(0);
    surfaceProgram_->setUniformValue("backdrop", 0);
}

void SceneView::uploadLines() {
    if (linesOf_ == session_.snapshot() && linesSelection_ == session_.selection()) return;
    linesOf_ = session_.snapshot();
    linesSelection_ = session_.selection();
    strokes_.clear();
    std::vector<float> places;
    const auto& derived = session_.derived();
    const auto add = [&](const std::vector<Vec3>& run, const QColor& colour, float width) {
        strokes_.push_back(
            {static_cast<int>(places.size() / 3), static_cast<int>(run.size()), colour, width});
        for (const Vec3& v : run) {
            const QVector3D p = local(v.plan(), v.z);
            places.insert(places.end(), {p.x(), p.y(), p.z()});
        }
    };
    /// Plan geometry without heights of its own lies on the surface.
    const auto onGround = [&](const geometry::Path& path, const QColor& colour, float width) {
        std::vector<Vec3> run;
        const double length = geometry::lengthOf(path);
        const int pieces = std::clamp(static_cast<int>(length / 1.5), 2, 4000);
        for (int k = 0; k <= pieces; ++k) {
            const Vec2 p = geometry::positionAt(path, length * k / pieces).place;
            if (const auto h = derived.topHeight(p)) {
                run.push_back({p.x, p.y, *h + 0.08});
                continue;
            }
            if (run.size() > 1) add(run, colour, width);
            run.clear();
        }
        if (run.size() > 1) add(run, colour, width);
    };
    for (const auto& [id, line] : derived.lines) {
        const auto object = derived.document.find(id);
        if (derived.document.hidden(*object)) continue;
        const auto* group = derived.document.get<objects::Group>(object->group);
        const bool selected = session_.isSelected(id);
        const QColor colour =
            selected ? theme::clay
                     : (group != nullptr ? QColor(QString::fromStdString(group->colour)) : theme::breakline);
        const auto runs = runsWithHeights(*line, 0.05);
        for (const auto& run : runs) add(run, colour, selected ? 3.5F : 2.0F);
        if (runs.empty() && selected && !line->path.empty()) onGround(line->path, colour, 3.0F);
    }
    for (const auto& [id, a] : derived.alignments)
        if (!a->path.empty())
            onGround(a->path, session_.isSelected(id) ? theme::clay : theme::alignment, 2.5F);
    for (const ObjectId id : derived.document.all<objects::Parcel>())
        if (const auto on = derived.lines.find(derived.document.get<objects::Parcel>(id)->line);
            on != derived.lines.end())
            onGround(on->second->path, session_.isSelected(id) ? theme::clay : theme::parcel, 2.5F);
    const QOpenGLVertexArrayObject::Binder binder(lineArray_.get());
    lineBuffer_.bind();
    lineBuffer_.allocate(places.data(), static_cast<int>(places.size() * sizeof(float)));
    glEnableVertexAttribArray(0);
    glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, 0, nullptr);
}

void SceneView::drawLines(const QMatrix4x4& m) {
    lineProgram_->bind();
    lineProgram_->setUniformValue("matrix", m);
    lineProgram_->setUniformValue("exaggeration", static_cast<float>(exaggeration_));
    const QOpenGLVertexArrayObject::Binder binder(lineArray_.get());
    for (const Stroke& s : strokes_) {
        lineProgram_->setUniformValue("stroke", s.colour);
        glLineWidth(s.width);
        glDrawArrays(GL_LINE_STRIP, s.first, s.count);
    }
    lineProgram_->release();
}

}  // namespace erdwerk::app
