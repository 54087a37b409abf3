global using System.Net;
global using System.Net.Http.Json;
global using Shouldly;
global using Xunit;
global using Fobble.Core;
global using Fobble.Server.Rooms;
