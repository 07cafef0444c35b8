// The 3D view's content on its way to the graphics card, and drawn from there.

#include <cmath>

#include "app/base/theme.h"
#include "app/scene/scene_view.h"
#include "core/objects/backdrop.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

namespace {

/// Dense points of one object that are drawn at most: more than a screen can tell apart.
constexpr std::size_t pointBudget = 700'000;

}  // namespace

const SceneContent& SceneView::content() {
    if (content_.isOf(session_.snapshot(), session_.selection().refs())) return content_;
    content_ = contentOf(session_.snapshot(), session_.selection().refs(), layers_);
    strokesUploaded_ = false;
    return content_;
}

void SceneView::upload() {
    const auto& shown = content();
    const auto gone = [](const auto& all) {
        return [&all](const auto& entry) {
            return std::none_of(all.begin(), all.end(), [&](const auto& s) { return s.id == entry.first; });
        };
    };
    std::erase_if(meshes_, gone(shown.meshes()));
    std::erase_if(dense_, gone(shown.dense()));
    for (const auto& mesh : shown.meshes()) uploadMesh(mesh);
    for (const auto& dense : shown.dense()) uploadDense(dense);
    uploadStrokes();
}

void SceneView::uploadMesh(const SceneMesh& shown) {
    auto& mesh = meshes_[shown.id];
    if (mesh && mesh->made == shown.made) return;
    const auto& tin = *shown.tin;
    mesh = std::make_unique<Mesh>();
    mesh->made = shown.made;
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

void SceneView::uploadDense(const SceneDense& shown) {
    const Vec2 centre{static_cast<double>(target_.x()) + origin_.x,
                      static_cast<double>(target_.y()) + origin_.y};
    const auto square = [&](double half) {
        geometry::Box box;
        box.add(Vec2{centre.x - half, centre.y - half});
        box.add(Vec2{centre.x + half, centre.y + half});
        return box;
    };
    auto& points = dense_[shown.id];
    // The window is kept while it holds what is looked at and is not much too wide for it.
    const geometry::Box seen = square(distance_ * 0.7);
    const bool holds =
        points && points->made == shown.made && points->window.contains({seen.minX, seen.minY}) &&
        points->window.contains({seen.maxX, seen.maxY}) && points->window.width() < 4 * seen.width();
    if (holds) return;
    points = std::make_unique<DensePoints>();
    points->made = shown.made;
    points->window = square(distance_ * 1.4);
    struct Vertex {
        float x, y, z;
        QRgb tint;
    };
    std::vector<Vertex> vertices;
    shown.sample(points->window, pointBudget, [&](const Vec3& p, QRgb c) {
        const QVector3D q = local(p.plan(), p.z);
        // Bytes red, green, blue, alpha, as the shader reads them.
        vertices.push_back({q.x(), q.y(), q.z(),
                            0xff000000U | static_cast<QRgb>(qBlue(c) << 16) |
                                static_cast<QRgb>(qGreen(c) << 8) | static_cast<QRgb>(qRed(c))});
    });
    const double area = points->window.width() * points->window.height();
    points->spacing = std::max(
        shown.spacing, std::sqrt(area / static_cast<double>(std::max<std::size_t>(1, vertices.size()))));
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

void SceneView::uploadStrokes() {
    if (strokesUploaded_) return;
    strokesUploaded_ = true;
    std::vector<float> places;
    for (const auto& stroke : content_.strokes())
        for (const Vec3& v : stroke.places) {
            const QVector3D p = local(v.plan(), v.z);
            places.insert(places.end(), {p.x(), p.y(), p.z()});
        }
    const QOpenGLVertexArrayObject::Binder binder(lineArray_.get());
    lineBuffer_.bind();
    lineBuffer_.allocate(places.data(), static_cast<int>(places.size() * sizeof(float)));
    glEnableVertexAttribArray(0);
    glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, 0, nullptr);
}

void SceneView::drawMeshes(const QMatrix4x4& matrix) {
    surfaceProgram_->bind();
    surfaceProgram_->setUniformValue("matrix", matrix);
    surfaceProgram_->setUniformValue("exaggeration", static_cast<float>(exaggeration_));
    surfaceProgram_->setUniformValue("low", static_cast<float>(low_));
    surfaceProgram_->setUniformValue("high", static_cast<float>(high_));
    std::array<QVector3D, 5> ramp;
    for (std::size_t i = 0; i < ramp.size(); ++i) {
        const QColor c = theme::heightColour(static_cast<double>(i) / 4.0);
        ramp[i] = {static_cast<float>(c.redF()), static_cast<float>(c.greenF()),
                   static_cast<float>(c.blueF())};
    }
    surfaceProgram_->setUniformValueArray("ramp", ramp.data(), 5);
    bindPicture();
    for (const auto& shown : content_.meshes()) {
        auto& mesh = *meshes_.at(shown.id);
        surfaceProgram_->setUniformValue("coloured", shown.coloured);
        const QOpenGLVertexArrayObject::Binder binder(mesh.array.get());
        glDrawElements(GL_TRIANGLES, mesh.count, GL_UNSIGNED_INT, nullptr);
    }
    surfaceProgram_->release();
}

void SceneView::drawDense(const QMatrix4x4& matrix) {
    glEnable(GL_PROGRAM_POINT_SIZE);
    pointProgram_->bind();
    pointProgram_->setUniformValue("matrix", matrix);
    pointProgram_->setUniformValue("exaggeration", static_cast<float>(exaggeration_));
    for (auto& [id, points] : dense_) {
        if (points->count == 0) continue;
        // As wide as the points stand apart, in pixels at unit depth.
        pointProgram_->setUniformValue(
            "size", static_cast<float>(points->spacing * 1.3 * height() * devicePixelRatioF() /
                                       (2 * std::tan(halfAngle))));
        const QOpenGLVertexArrayObject::Binder binder(points->array.get());
        glDrawArrays(GL_POINTS, 0, points->count);
    }
    pointProgram_->release();
}

void SceneView::drawStrokes(const QMatrix4x4& matrix) {
    lineProgram_->bind();
    lineProgram_->setUniformValue("matrix", matrix);
    lineProgram_->setUniformValue("exaggeration", static_cast<float>(exaggeration_));
    const QOpenGLVertexArrayObject::Binder binder(lineArray_.get());
    int first = 0;
    for (const auto& stroke : content_.strokes()) {
        lineProgram_->setUniformValue("stroke", stroke.colour);
        glLineWidth(stroke.width);
        glDrawArrays(GL_LINE_STRIP, first, static_cast<int>(stroke.places.size()));
        first += static_cast<int>(stroke.places.size());
    }
    lineProgram_->release();
}

void SceneView::bindPicture() {
    const auto& top = content_.picture();
    if (top != pictureOf_) {
        pictureOf_ = top;
        picture_.reset();
        if (top) {
            const QImage image(top->rgb.data(), static_cast<int>(top->columns), static_cast<int>(top->rows),
                               static_cast<qsizetype>(3 * top->columns), QImage::Format_RGB888);
            picture_ = std::make_unique<QOpenGLTexture>(image.convertToFormat(QImage::Format_RGBA8888));
            picture_->setMinificationFilter(QOpenGLTexture::LinearMipMapLinear);
            picture_->setMagnificationFilter(QOpenGLTexture::Linear);
        }
    }
    surfaceProgram_->setUniformValue("draped", picture_ != nullptr);
    if (!picture_) return;
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
    picture_->bind(0);
    surfaceProgram_->setUniformValue("backdrop", 0);
}

}  // namespace erdwerk::app
